<script setup lang="ts">
import Button from 'primevue/button'
import { onMounted, ref } from 'vue'

import { ask, client, type Refusal } from '../api/client'
import DoorNote from '../parts/DoorNote.vue'

/** The page of a link to come in by: looking at it uses nothing up, the press does. */
const props = defineProps<{ secret: string }>()
const refusal = ref<Refusal | null>(null)
const busy = ref(false)
document.title = 'At the door · Keen Slate'

async function enter(): Promise<void> {
  busy.value = true
  const answer = await ask(client.POST('/api/enter', { body: { link: props.secret } }))
  busy.value = false
  // A new page, so that nothing is left of whoever was here before.
  if (answer.ok) window.location.replace('/')
  else refusal.value = answer.refusal
}

// The start of the program opens its own link, and presses for whoever started it.
onMounted(() => window.location.hash === '#now' && void enter())
</script>

<template>
  <DoorNote>
    <template v-if="refusal">
      <h1>{{ refusal.message }}</h1>
      <p>{{ refusal.hint }}</p>
      <Button as="a" href="/" class="in" label="I am signed in: to the Shelf" />
    </template>
    <template v-else>
      <h1>Come in</h1>
      <p>This link lets you in once, in this browser.</p>
      <Button label="Come in" autofocus :loading="busy" @click="enter" />
    </template>
  </DoorNote>
</template>

<style scoped>
.in {
  text-decoration: none;
}
</style>
