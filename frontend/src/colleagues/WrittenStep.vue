<script setup lang="ts">
import type { Row, Step } from '../api/client'
import PaperRow from '../bench/PaperRow.vue'
import MathLine from '../parts/MathLine.vue'

defineProps<{
  /** The line that is written; none where a step has only jottings. */
  row: Row | null
  /** What is done; left out for the problem itself. */
  step?: Step
}>()
</script>

<template>
  <p v-if="step" class="done"><MathLine :glyphs="step.title_glyphs" /></p>
  <div class="written">
    <PaperRow v-if="row" :row="row" peek />
    <p v-for="(glyphs, i) in step?.line_glyphs ?? []" :key="i" class="jotting"><MathLine :glyphs="glyphs" /></p>
  </div>
</template>

<style scoped>
.done {
  padding-bottom: 4px;
  font-size: 0.95rem;
  font-weight: 700;
}
/* Squares where one writes in squares; what is read stands on plain paper. */
.written {
  padding: var(--half) var(--half) var(--half) var(--square);
  background:
    linear-gradient(var(--squares) 1px, transparent 1px) 0 -1px / var(--square) var(--square),
    linear-gradient(90deg, var(--squares) 1px, transparent 1px) -1px 0 / var(--square) var(--square);
}
.jotting {
  padding-left: var(--square);
  font-size: 0.92rem;
  color: var(--ink-quiet);
}
</style>
