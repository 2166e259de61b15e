<script setup lang="ts">
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { onMounted, ref } from 'vue'

import { ask, client, type Answer, type Refusal, type Schemas } from '../api/client'
import DoorNote from '../parts/DoorNote.vue'
import NewPassword from '../parts/NewPassword.vue'
import { goThere } from '../parts/provider'
import limits from '../parts/limits.json'

/** The page of an invitation: looking at it uses nothing up, coming in does. */
const props = defineProps<{ secret: string }>()
const invited = ref<Schemas['InvitedOut'] | null>(null)
const over = ref<Refusal | null>(null)
const refusal = ref<Refusal | null>(null)
const name = ref('')
const address = ref('')
const password = ref('')
const busy = ref(false)
document.title = 'An invitation · Keen Slate'

/** What the school's own sign-in is called, where there is one. */
const provider = ref<string | null>(null)

onMounted(async () => {
  void ask(client.GET('/api/way-in')).then((way) => (provider.value = way.ok ? way.data.provider : null))
  const answer = await ask(client.POST('/api/invited', { body: { link: props.secret } }))
  if (!answer.ok) return void (over.value = answer.refusal)
  invited.value = answer.data
  name.value = answer.data.name
})

async function comeIn(join: () => Promise<Answer<unknown>>): Promise<void> {
  busy.value = true
  const answer = await join()
  busy.value = false
  // A new page, so that nothing is left of whoever was here before.
  if (answer.ok) window.location.replace('/')
  else refusal.value = answer.refusal
}

async function go(): Promise<void> {
  const answer = await byProvider()
  refusal.value = answer.ok ? null : answer.refusal
}

const asNew = () =>
  ask(
    client.POST('/api/join', {
      body: { link: props.secret, name: name.value, address: address.value, password: password.value },
    }),
  )
const byProvider = () =>
  goThere(client.POST('/api/provider/options'), { what: 'join', link: props.secret, name: name.value })
const asOneself = () => ask(client.POST('/api/school/joined', { body: { link: props.secret } }))
</script>

<template>
  <DoorNote>
    <template v-if="over">
      <h1>{{ over.message }}</h1>
      <p>{{ over.hint || 'If you came in by it before, sign in; else ask whoever invited you for another one.' }}</p>
      <Button as="a" href="/" class="in" label="Sign in" />
    </template>
    <template v-else-if="invited">
      <h1>{{ invited.school }} invites you</h1>
      <p v-if="refusal" class="refusal" role="alert">{{ refusal.message }} {{ refusal.hint }}</p>
      <template v-if="invited.here">
        <p>You are signed in as {{ invited.here }}. What you shared with another school is withdrawn.</p>
        <Button :label="`Join as ${invited.here}`" :loading="busy" @click="comeIn(asOneself)" />
        <p>Somebody else? Open this link in another browser.</p>
      </template>
      <form v-else class="fields" @submit.prevent="comeIn(asNew)">
        <label for="name">Your name, as your colleagues read it</label>
        <InputText id="name" v-model="name" autocomplete="name" :maxlength="limits.title" required />
        <template v-if="provider">
          <Button :label="`Come in by ${provider}`" :disabled="busy || !name.trim()" @click="go" />
          <p>Or with a password of your own here:</p>
        </template>
        <NewPassword v-model:address="address" v-model:password="password" />
        <Button
          type="submit"
          label="Come in"
          :loading="busy"
          :disabled="!name.trim() || !address.trim() || !password"
        />
      </form>
    </template>
  </DoorNote>
</template>

<style scoped src="../parts/fields.css"></style>
<style scoped>
.in {
  text-decoration: none;
}
</style>
