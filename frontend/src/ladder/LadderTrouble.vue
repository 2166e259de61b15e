<script setup lang="ts">
import Button from 'primevue/button'
import { computed } from 'vue'

import type { Choices, Ladder } from '../api/client'

/** Why there is no ladder, or not the best one, and what would help. */
const props = defineProps<{ ladder: Ladder; choices: Choices }>()
defineEmits<{ nearest: [] }>()

const NAMES: Record<string, string> = {
  answer_below: 'answers below',
  denominators: 'denominators',
  largest_common_denominator: 'a common denominator up to',
  largest_whole: 'wholes up to',
  avoid: 'avoid only',
  operations: 'operations',
  places: 'places after the point',
  lowest_terms: 'terms in lowest terms',
  only: 'any shape:',
  targets: 'reveal only',
  rungs: 'fewer problems',
}
const nearest = computed(() => {
  const { limit = '', nearest } = props.ladder.impossible ?? {}
  if (limit === 'only') return 'any shape'
  if (limit === 'lowest_terms') return 'terms that can be simplified'
  const value =
    limit === 'rungs'
      ? Object.entries((nearest ?? {}) as Record<string, number>)
          .map(([rung, n]) => `${n} on ${rung}`)
          .join(', ')
      : [nearest].flat().join(', ')
  return `${NAMES[limit] ?? ''} ${value || 'none'}`
})
const missing = computed(() =>
  props.ladder.not_revealed
    .map((code) => props.choices.targets.find((one) => one.code === code)?.name ?? code)
    .join('; '),
)
</script>

<template>
  <div v-if="ladder.impossible" class="impossible" role="status">
    <p>{{ ladder.impossible.said }} No ladder fulfils this wish.</p>
    <p v-if="ladder.impossible.nearest !== null || ladder.impossible.limit === 'only'">
      The nearest that does: {{ nearest }}. <Button class="word" @click="$emit('nearest')">Take that</Button>
    </p>
  </div>
  <p v-if="ladder.ended_early || ladder.impossible?.ended_early" class="quiet" role="status">
    {{
      ladder.impossible
        ? 'Which limit rules it out was not found in ten seconds.'
        : 'After ten seconds the search was ended: these are the best problems by then.'
    }}
    <template v-if="missing"> Not shown yet: {{ missing }}.</template>
  </p>
</template>

<style scoped>
.impossible {
  border-left: 3px solid var(--role-wrong);
  padding-left: 14px;
}
.word {
  text-decoration-color: currentColor;
}
.quiet {
  color: var(--ink-quiet);
}
</style>
