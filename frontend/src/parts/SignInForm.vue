<script setup lang="ts">
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { ref } from 'vue'

import { ask, client, type Refusal } from '../api/client'
import limits from './limits.json'

/** Coming in by an address and a password of one's own. */
const address = ref('')
const password = ref('')
const refusal = ref<Refusal | null>(null)
const busy = ref(false)

async function signIn(): Promise<void> {
  busy.value = true
  const body = { address: address.value, password: password.value }
  const answer = await ask(client.POST('/api/sign-in', { body }))
  busy.value = false
  // A new page, so that nothing is left of whoever was here before.
  if (answer.ok) window.location.replace('/')
  else refusal.value = answer.refusal
}
</script>

<template>
  <form class="sign-in" @submit.prevent="signIn">
    <p v-if="refusal" class="refusal" role="alert">{{ refusal.message }} {{ refusal.hint }}</p>
    <label for="address">Address (e-mail)</label>
    <InputText
      id="address"
      v-model="address"
      type="email"
      autocomplete="username"
      :maxlength="limits.address"
      autofocus
      required
    />
    <label for="password">Password</label>
    <InputText
      id="password"
      v-model="password"
      type="password"
      autocomplete="current-password"
      :maxlength="limits.password"
      required
    />
    <Button type="submit" label="Sign in" :loading="busy" />
  </form>
</template>

<style scoped>
.sign-in {
  display: grid;
  gap: 6px;
  justify-items: start;
  width: 100%;
}
label {
  padding-top: 6px;
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
