<script setup lang="ts">
import Button from 'primevue/button'
import { onMounted, ref } from 'vue'

import { ask, client, type Refusal } from '../api/client'
import DoorNote from '../parts/DoorNote.vue'
import ForgottenForm from '../parts/ForgottenForm.vue'
import { goThere } from '../parts/provider'
import SignInForm from '../parts/SignInForm.vue'

document.title = 'At the door · Keen Slate'
/** Whether a link can be sent by e-mail from here. */
const mail = ref(false)
/** What the school's own sign-in is called, where there is one. */
const provider = ref<string | null>(null)
const refusal = ref<Refusal | null>(null)
onMounted(async () => {
  const answer = await ask(client.GET('/api/way-in'))
  if (!answer.ok) return
  mail.value = answer.data.mail
  provider.value = answer.data.provider
})

async function byProvider(): Promise<void> {
  const answer = await goThere(client.POST('/api/provider/options'), { what: 'sign-in' })
  refusal.value = answer.ok ? null : answer.refusal
}
</script>

<template>
  <DoorNote>
    <h1>Sign in</h1>
    <p v-if="refusal" class="refusal" role="alert">{{ refusal.message }} {{ refusal.hint }}</p>
    <Button v-if="provider" :label="`Sign in by ${provider}`" @click="byProvider" />
    <SignInForm />
    <ForgottenForm v-if="mail" />
    <p class="or">
      No password yet, or forgotten? The head of your school can hand you a link that works once. Whoever keeps Keen
      Slate prints one by this command, in its folder (with a name behind it, for whom):
    </p>
    <p class="command"><code>./slate link</code></p>
    <a href="/" class="word in">I am signed in: to the Shelf</a>
  </DoorNote>
</template>

<style scoped>
.in {
  padding-left: 0;
  text-decoration-color: currentColor;
}

.or {
  border-top: 1px solid var(--hair);
  padding-top: 14px;
  width: 100%;
}
.command {
  font-size: 1.15rem;
}
code {
  font-family: ui-monospace, monospace;
  background: #eef3f4;
  padding: 4px 10px;
  border-radius: 2px;
}
</style>
