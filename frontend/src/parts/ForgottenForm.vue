<script setup lang="ts">
import Button from 'primevue/button'
import { ref } from 'vue'

import { ask, client, type Refusal } from '../api/client'
import AddressField from './AddressField.vue'

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
  <form v-else class="fields form" @submit.prevent="send">
    <p v-if="refusal" class="refusal" role="alert">{{ refusal.message }} {{ refusal.hint }}</p>
    <p>A link that lets you in once is sent to the address that you sign in by; then you name a new password.</p>
    <AddressField id="forgotten" v-model="address" label="Your address" autofocus />
    <Button type="submit" label="Send me a link" />
  </form>
</template>

<style scoped src="./fields.css"></style>
<style scoped>
.forgotten {
  padding-left: 0;
  text-decoration-color: currentColor;
}
.form {
  border-top: 1px solid var(--hair);
  padding-top: 14px;
}
</style>
