<script setup lang="ts">
import Button from 'primevue/button'
import { onMounted, ref } from 'vue'

import { ask, client, type Refusal } from '../api/client'
import DoorNote from '../parts/DoorNote.vue'
import { errandOf, type Errand } from '../parts/provider'

/** Where a browser comes back to from the school's own sign-in. */
const props = defineProps<{ code: string; state: string }>()
const refusal = ref<Refusal | null>(null)
const errand = ref<Errand | null>(null)
document.title = 'Signing in · Keen Slate'

onMounted(async () => {
  const found = (errand.value = errandOf(props.state))
  // What it brought back is nobody's business any more.
  history.replaceState(history.state, '', window.location.pathname)
  if (!found || !props.code) {
    const message = found ? 'You did not sign in there.' : 'Nobody went to a sign-in from this tab.'
    refusal.value = { message, hint: '', position: 0, length: 0 }
    return
  }
  const body = { code: props.code, state: props.state }
  const answer = await ask<unknown>(
    found.what === 'sign-in'
      ? client.POST('/api/provider/sign-in', { body })
      : found.what === 'add'
        ? client.POST('/api/account/identities', { body })
        : client.POST('/api/provider/join', { body: { ...body, link: found.link ?? '', name: found.name ?? '' } }),
  )
  // A new page, so that nothing is left of whoever was here before.
  if (answer.ok) window.location.replace(found.what === 'add' ? '/account' : '/')
  else refusal.value = answer.refusal
})
</script>

<template>
  <DoorNote>
    <template v-if="refusal">
      <h1>{{ refusal.message }}</h1>
      <p>{{ refusal.hint || 'A head’s invitation, or My account, is where such a sign-in is added.' }}</p>
      <Button
        as="a"
        class="in"
        :href="errand?.what === 'add' ? '/account' : errand?.link ? `/invited/${errand.link}` : '/door'"
        label="Back"
      />
    </template>
    <h1 v-else role="status">Signing in …</h1>
  </DoorNote>
</template>

<style scoped>
.in {
  text-decoration: none;
}
</style>
