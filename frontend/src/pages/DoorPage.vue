<script setup lang="ts">
import { onMounted, ref } from 'vue'

import { ask, client } from '../api/client'
import DoorNote from '../parts/DoorNote.vue'
import ForgottenForm from '../parts/ForgottenForm.vue'
import SignInForm from '../parts/SignInForm.vue'

document.title = 'At the door · Keen Slate'
/** Whether a link can be sent by e-mail from here. */
const mail = ref(false)
onMounted(async () => {
  const answer = await ask(client.GET('/api/way-in'))
  mail.value = answer.ok && answer.data.mail
})
</script>

<template>
  <DoorNote>
    <h1>Sign in</h1>
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
