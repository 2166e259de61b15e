<script setup lang="ts">
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { ref } from 'vue'

import { ask, client, type Answer, type Refusal } from '../api/client'
import limits from './limits.json'
import { askPasskey, passkeysWork } from './passkey'

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
  <form class="sign-in" @submit.prevent="comeIn(byPassword)">
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
    <Button v-if="work" class="word passkey" :disabled="busy" @click="comeIn(byPasskey)">Sign in by a passkey</Button>
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
.passkey {
  padding-left: 0;
  text-decoration-color: currentColor;
}
.refusal {
  color: var(--role-wrong);
}
</style>
