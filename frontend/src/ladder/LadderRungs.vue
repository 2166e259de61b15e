<script setup lang="ts">
import { computed, ref } from 'vue'

import type { Choices, Counts } from '../api/client'

const chosen = defineModel<Record<string, number>>({ required: true })
const props = defineProps<{
  rungs: Choices['rungs']
  /** How many problems there are on each rung that is wished for. */
  counts: Counts | null
}>()

defineEmits<{ span: [from: string, to: string, steps: number] }>()

const FAMILIES: Record<string, string> = {
  F: 'Fractions',
  M: 'Mixed numbers',
  D: 'Decimals',
  P: 'Multiplying and dividing',
  O: 'Order of operations',
  E: 'Equal fractions and blanks',
  N: 'Lowest terms',
  V: 'Converting',
}
const families = computed(() =>
  Object.entries(FAMILIES).map(([letter, name]) => ({
    name,
    rungs: props.rungs.filter((rung) => rung.code[0] === letter),
  })),
)
const from = ref('')
const to = ref('')
const steps = ref(8)

function put(code: string, count: number): void {
  const { [code]: _old, ...others } = chosen.value
  chosen.value = count > 0 ? { ...others, [code]: Math.min(20, count) } : others
}
</script>

<template>
  <fieldset>
    <legend>Rungs</legend>
    <p class="span">
      From
      <select v-model="from" aria-label="From the rung">
        <option v-for="rung in rungs" :key="rung.code">{{ rung.code }}</option>
      </select>
      to
      <select v-model="to" aria-label="To the rung">
        <option v-for="rung in rungs" :key="rung.code">{{ rung.code }}</option>
      </select>
      in <input v-model.number="steps" type="number" min="1" max="40" aria-label="Number of problems" /> problems
      <button type="button" class="word" :disabled="!from || !to" @click="$emit('span', from, to, steps)">Set</button>
    </p>
    <details
      v-for="family in families"
      :key="family.name"
      :open="family.rungs.some((rung) => chosen[rung.code]) || family.name === 'Fractions'"
    >
      <summary>{{ family.name }}</summary>
      <p v-for="rung in family.rungs" :key="rung.code" class="rung" :data-chosen="!!chosen[rung.code]">
        <span class="code">{{ rung.code }}</span>
        <span class="what">{{ rung.name }}</span>
        <span class="there" :data-none="counts?.counts[rung.code] === 0">{{
          counts?.counts[rung.code]?.toLocaleString('en') ?? ''
        }}</span>
        <button
          type="button"
          class="word"
          :aria-label="`One less on ${rung.code}`"
          :disabled="!chosen[rung.code]"
          @click="put(rung.code, (chosen[rung.code] ?? 0) - 1)"
        >
          −
        </button>
        <strong :aria-label="`${chosen[rung.code] ?? 0} on ${rung.code}`">{{ chosen[rung.code] ?? 0 }}</strong>
        <button
          type="button"
          class="word"
          :aria-label="`One more on ${rung.code}`"
          @click="put(rung.code, (chosen[rung.code] ?? 0) + 1)"
        >
          +
        </button>
      </p>
    </details>
  </fieldset>
</template>

<style scoped>
fieldset {
  border: 0;
  padding: 0;
  margin: 0;
}
legend,
summary {
  font-weight: 700;
  padding: 0;
}
summary {
  font-weight: 400;
  cursor: pointer;
  padding: 3px 0;
  color: var(--on-slate-quiet);
}
.span {
  padding: 4px 0 6px;
}
select,
input {
  font: inherit;
  background: var(--paper);
  color: var(--ink);
  border: 0;
  border-radius: 2px;
  padding: 1px 4px;
}
input {
  width: 3.4em;
}
.rung {
  display: grid;
  grid-template-columns: 2.1em 1fr auto 1.8em 1.2em 1.8em;
  gap: 4px;
  align-items: baseline;
  padding: 1px 0;
}
.rung[data-chosen='true'] {
  background: var(--rung);
}
.code {
  font-size: 0.85rem;
  color: var(--on-slate-quiet);
  padding-left: 4px;
}
.there {
  font-size: 0.82rem;
  color: var(--on-slate-quiet);
  padding-right: 6px;
}
.there[data-none='true'] {
  color: var(--focus);
}
.rung strong {
  text-align: center;
}
.rung .word {
  padding: 0;
  text-align: center;
  font-size: 1.1rem;
}
.span .word {
  text-decoration: underline;
  text-underline-offset: 4px;
}
</style>
