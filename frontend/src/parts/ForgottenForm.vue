<script setup lang="ts">
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { ref } from 'vue'

import { ask, client, type Refusal } from '../api/client'
import limits from './limits.json'

/** A link by e-mail, for who has forgotten her password. */
const open = ref(false)
const address = ref('')
const refusal = ref<Refusal | null>(null)
const asked = ref(false)

async function send(): Promise<void> {
  const answer = await ask(client.POST('/api/forgotten', { body: { address: address.value } }))
  refusal.value = answer.ok ? null : answer.refusal
  asked.value = answer.ok
}
</script>

<template>
  <Button v-if="!open" class="word forgotten" @click="open = true">Password forgotten?</Button>
  <p v-else-if="asked" role="status">
    If somebody signs in by this address, a link is on its way to it. It works once, within twelve hours.
  </p>
  <form v-else class="form" @submit.prevent="send">
    <p v-if="refusal" class="refusal" role="alert">{{ refusal.message }} {{ refusal.hint }}</p>
    <p>A link that lets you in once is sent to the address that you sign in by; then you name a new password.</p>
    <label for="forgotten">Your address</label>
    <InputText
      id="forgotten"
      v-model="address"
      type="email"
      autocomplete="username"
      :maxlength="limits.address"
      autofocus
      required
    />
    <Button type="submit" label="Send me a link" />
  </form>
</template>

<style scoped>
.forgotten {
  padding-left: 0;
  text-decoration-color: currentColor;
}
.form {
  border-top: 1px solid var(--hair);
  padding-top: 14px;
  display: grid;
  gap: 6px;
  justify-items: start;
  width: 100%;
}
input {
  width: min(24rem, 100%);
}
[type='submit'] {
  margin-top: 12px;
}
.refusal {
  color: var(--role-wrong);
}
</style>
