<script setup lang="ts">
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { ref } from 'vue'

import { ask, client, type Refusal, type Schemas } from '../api/client'
import limits from '../parts/limits.json'
import { makePasskey, passkeysWork } from '../parts/passkey'
import PasswordField from '../parts/PasswordField.vue'
import KeyList from './KeyList.vue'

/** The passkeys of a teacher: a device that lets her in without a password. */
defineProps<{ account: Schemas['AccountOut'] }>()
const emit = defineEmits<{ changed: [] }>()
const name = ref('')
const now = ref('')
const refusal = ref<Refusal | null>(null)
const busy = ref(false)
const work = passkeysWork()

async function add(): Promise<void> {
  busy.value = true
  refusal.value = null
  const begun = await ask(client.POST('/api/account/passkeys/options'))
  const credential = begun.ok ? await makePasskey(begun.data.options) : null
  if (!begun.ok) refusal.value = begun.refusal
  else if (!credential) refusal.value = { message: 'No passkey was made.', hint: '', position: 0, length: 0 }
  else {
    const body = { name: name.value, now: now.value || null, credential }
    const kept = await ask(client.POST('/api/account/passkeys', { body }))
    if (kept.ok) name.value = now.value = ''
    else refusal.value = kept.refusal
    emit('changed')
  }
  busy.value = false
}

async function remove(id: string): Promise<void> {
  const answer = await ask(client.DELETE('/api/account/passkeys/{named}', { params: { path: { named: id } } }))
  refusal.value = answer.ok ? null : answer.refusal
  emit('changed')
}
</script>

<template>
  <section class="sheet on-paper" aria-labelledby="passkeys">
    <h2 id="passkeys">Passkeys</h2>
    <p class="quiet">
      {{
        work
          ? 'A passkey in your phone or computer signs you in without a password.'
          : 'This browser, at this address, cannot make one.'
      }}
    </p>
    <p v-if="refusal" class="refusal" role="alert">{{ refusal.message }} {{ refusal.hint }}</p>
    <KeyList :keys="account.passkeys" what="passkey" @remove="remove" />
    <form v-if="work" class="fields" @submit.prevent="add">
      <label for="passkey-name">A new one, called (where it is kept, say)</label>
      <InputText id="passkey-name" v-model="name" autocomplete="off" :maxlength="limits.title" required />
      <PasswordField v-if="account.asks_now" id="passkey-now" v-model="now" label="Present password" />
      <Button type="submit" label="Add a passkey" :loading="busy" :disabled="!name.trim()" />
    </form>
  </section>
</template>

<style scoped src="../classes/class.css"></style>
<style scoped src="./account.css"></style>
<style scoped src="../parts/fields.css"></style>
