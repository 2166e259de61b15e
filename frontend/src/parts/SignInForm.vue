<script setup lang="ts">
import Button from 'primevue/button'
import { ref } from 'vue'

import { ask, client, type Answer, type Refusal } from '../api/client'
import AddressField from './AddressField.vue'
import { askPasskey, passkeysWork } from './passkey'
import PasswordField from './PasswordField.vue'

/** Coming in by an address and a password of one's own. */
const address = ref('')
const password = ref('')
const refusal = ref<Refusal | null>(null)
const busy = ref(false)
const work = passkeysWork()

async function comeIn(asked: () => Promise<Answer<unknown> | null>): Promise<void> {
  busy.value = true
  refusal.value = null
  const answer = await asked()
  busy.value = false
  if (!answer) return
  // A new page, so that nothing is left of whoever was here before.
  if (answer.ok) window.location.replace('/')
  else refusal.value = answer.refusal
}

const byPassword = () =>
  ask(client.POST('/api/sign-in', { body: { address: address.value, password: password.value } }))

async function byPasskey(): Promise<Answer<unknown> | null> {
  const begun = await ask(client.POST('/api/passkey/options'))
  if (!begun.ok) return begun
  const credential = await askPasskey(begun.data.options)
  return credential && ask(client.POST('/api/passkey/sign-in', { body: { credential } }))
}
</script>

<template>
  <form class="fields" @submit.prevent="comeIn(byPassword)">
    <p v-if="refusal" class="refusal" role="alert">{{ refusal.message }} {{ refusal.hint }}</p>
    <AddressField v-model="address" label="Address (e-mail)" autofocus />
    <PasswordField v-model="password" label="Password" required />
    <Button type="submit" label="Sign in" :loading="busy" />
    <Button v-if="work" class="word passkey" :disabled="busy" @click="comeIn(byPasskey)">Sign in by a passkey</Button>
  </form>
</template>

<style scoped src="./fields.css"></style>
<style scoped>
.passkey {
  padding-left: 0;
  text-decoration-color: currentColor;
}
</style>
