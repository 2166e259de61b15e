<script setup lang="ts">
import Button from 'primevue/button'
import { ref, watch } from 'vue'

import { ask, client, type Mended, type Misconception, type Working } from '../api/client'
import MathLine from '../parts/MathLine.vue'
import { usePaper } from '../stores/paper'

const props = defineProps<{
  working: Working
  /** The misconception that is hidden here, or looks like another. */
  item: Misconception
}>()

const paper = usePaper()
const found = ref<Mended | null>(null)
watch(
  () => props.working.problem.text,
  () => (found.value = null),
)

async function look(): Promise<void> {
  const body = {
    text: props.working.problem.text,
    ways: props.working.methods,
    code: props.item.code,
    apart_from: props.item.same_as[0] ?? null,
  }
  const answer = await ask(client.POST('/api/mend', { body }))
  if (answer.ok && body.text === props.working.problem.text) found.value = answer.data
}
</script>

<template>
  <p class="mend">
    <Button v-if="!found" class="word" @click="look">
      {{
        item.status === 'hidden'
          ? 'Find the nearest problem that shows it'
          : 'Find the nearest problem that tells them apart'
      }}
    </Button>
    <template v-else-if="found.text">
      <MathLine :glyphs="found.glyphs" /> does it.
      <Button class="word" @click="paper.changeExample({ source: found.text ?? '' })">Take it instead</Button>
    </template>
    <template v-else>No small change of one number does it.</template>
  </p>
</template>

<style scoped>
.mend {
  font-size: 0.95rem;
}
.word {
  padding: 0;
  text-align: left;
  text-decoration: underline;
  text-underline-offset: 3px;
}
</style>
