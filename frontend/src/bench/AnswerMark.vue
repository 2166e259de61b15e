<script setup lang="ts">
import { computed } from 'vue'

import { useBench } from '../stores/bench'

const bench = useBench()
const mark = computed(() => bench.working?.marks.at(-1))

async function give(event: Event): Promise<void> {
  const points = Math.max(0, Math.min(20, Math.round(Number((event.target as HTMLInputElement).value)) || 0))
  if (bench.example) await bench.changeExample({ marks: { ...bench.example.marks, answer: points } })
}
</script>

<template>
  <details v-if="mark && bench.example" class="marks">
    <summary>{{ bench.example.points }} {{ bench.example.points === 1 ? 'mark' : 'marks' }} in all</summary>
    <p><label>For the answer <input type="number" min="0" max="20" :value="mark.points" @change="give" /></label> {{ mark.loses }}</p>
    <p>Those of a step stand under its “why?”.</p>
  </details>
</template>

<style scoped>
.marks { font-size: 0.92rem; color: var(--ink-quiet); width: fit-content; max-width: 100%; background: var(--paper); padding-right: 12px; }
summary { cursor: pointer; }
p { max-width: 34rem; }
input { font: inherit; width: 3.4em; border: 1px solid #8496a0; border-radius: 2px; background: #fff; color: var(--ink); padding: 0 4px; }
</style>
