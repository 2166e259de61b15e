<script setup lang="ts">
import type { Schemas, Step } from '../api/client'
import { useBench } from '../stores/bench'

const props = defineProps<{
  step: Step
  /** What it counts when it is marked. */
  mark?: Schemas['Marks']
}>()
const bench = useBench()

async function give(event: Event): Promise<void> {
  const points = Math.max(0, Math.min(20, Math.round(Number((event.target as HTMLInputElement).value)) || 0))
  if (bench.example && props.mark) await bench.changeExample({ marks: { ...bench.example.marks, [props.mark.key]: points } })
}

async function pause(): Promise<void> {
  const fading = bench.example?.fading
  if (fading) await bench.changeExample({ fading: { ...fading, pause: props.step.pause ? null : props.step.key } })
}
</script>

<template>
  <p v-if="mark" class="mark">
    <label>Marks <input type="number" min="0" max="20" :value="mark.points" @change="give" /></label> {{ mark.loses }}
  </p>
  <p class="mark"><button class="word" :aria-pressed="step.pause" @click="pause">{{ step.pause ? 'No pause before this step' : 'Let them try before this step' }}</button></p>
</template>

<style scoped>
.mark { font-size: 0.92rem; line-height: var(--square); background: var(--paper); }
input { font: inherit; width: 3.4em; height: calc(var(--square) - 2px); border: 1px solid #8496a0; border-radius: 2px; background: #fff; color: var(--ink); padding: 0 4px; }
.word { text-decoration: underline; text-underline-offset: 3px; padding: 0; }
</style>
