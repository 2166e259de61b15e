<script setup lang="ts">
import Button from 'primevue/button'
import { ref } from 'vue'

import { ask, client, type Refusal } from '../api/client'
import PasswordField from '../parts/PasswordField.vue'
import { useAsk } from '../parts/useAsk'

/** Having all that is one's own taken away, two weeks from now. */
defineProps<{
  /** Whether the present password is wanted. */
  asksNow: boolean
}>()
const askFirst = useAsk()
const now = ref('')
const refusal = ref<Refusal | null>(null)

async function leave(): Promise<void> {
  const answer = await ask(client.POST('/api/account/leaving', { body: { now: now.value || null } }))
  if (answer.ok) window.location.assign('/door')
  else refusal.value = answer.refusal
}
</script>

<template>
  <section class="sheet on-paper" aria-labelledby="end">
    <h2 id="end">End my account</h2>
    <p class="quiet">
      Your sets, classes and answers are taken away for good, 14 days from now. Until then you may come in and keep
      them; nobody sees what you shared meanwhile.
    </p>
    <p v-if="refusal" class="refusal" role="alert">{{ refusal.message }} {{ refusal.hint }}</p>
    <PasswordField v-if="asksNow" id="now-too" v-model="now" label="Present password" />
    <Button
      label="End my account"
      variant="outlined"
      @click="askFirst($event, 'Every browser is signed out. In 14 days all is gone.', 'End it', leave)"
    />
  </section>
</template>

<style scoped src="../classes/class.css"></style>
<style scoped src="./account.css"></style>
