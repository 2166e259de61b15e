<script setup lang="ts">
import Button from 'primevue/button'
import { ref } from 'vue'

import { ask, client, type Refusal, type Schemas } from '../api/client'
import PasswordField from '../parts/PasswordField.vue'
import { goThere } from '../parts/provider'
import KeyList from './KeyList.vue'

/** Who a teacher is to the school's own sign-in, by which she comes in without a password of this desk. */
defineProps<{
  account: Schemas['AccountOut']
  /** What the sign-in is called; none where there is none any more. */
  provider: string | null
}>()
const emit = defineEmits<{ changed: [] }>()
const now = ref('')
const refusal = ref<Refusal | null>(null)
const busy = ref(false)

async function add(): Promise<void> {
  busy.value = true
  const asked = client.POST('/api/account/identities/options', { body: { now: now.value || null } })
  const answer = await goThere(asked, { what: 'add' })
  busy.value = false
  refusal.value = answer.ok ? null : answer.refusal
}

async function remove(id: string): Promise<void> {
  const answer = await ask(client.DELETE('/api/account/identities/{named}', { params: { path: { named: id } } }))
  refusal.value = answer.ok ? null : answer.refusal
  emit('changed')
}
</script>

<template>
  <section class="sheet on-paper" aria-labelledby="identities">
    <h2 id="identities">{{ provider ? `Signing in by ${provider}` : 'The school’s own sign-in' }}</h2>
    <p class="quiet">Who is signed in at the school comes in here without another password.</p>
    <p v-if="refusal" class="refusal" role="alert">{{ refusal.message }} {{ refusal.hint }}</p>
    <KeyList :keys="account.identities" what="sign-in" @remove="remove" />
    <form v-if="provider" class="fields" @submit.prevent="add">
      <PasswordField v-if="account.asks_now" id="identity-now" v-model="now" label="Present password" />
      <Button
        type="submit"
        :label="account.identities.length ? 'Add another one' : `Sign in by ${provider} from now on`"
        :loading="busy"
      />
    </form>
  </section>
</template>

<style scoped src="../classes/class.css"></style>
<style scoped src="./account.css"></style>
<style scoped src="../parts/fields.css"></style>
