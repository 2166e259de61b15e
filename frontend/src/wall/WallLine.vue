<script setup lang="ts">
import type { Row, Step } from '../api/client'
import PaperRow from '../bench/PaperRow.vue'
import MathLine from '../parts/MathLine.vue'

defineProps<{
  row: Row
  /** Its step; none for the problem itself. */
  step?: Step
  /** Whether it is the line in hand; those before it step back. */
  current: boolean
  /** Whether its blanks are still to be filled. */
  open: boolean
  /** Whether it is the answer. */
  last: boolean
}>()
</script>

<template>
  <li class="line" :data-current="current" :data-answer="last">
    <PaperRow :row="{ ...row, hidden: false }" :peek="!open" />
    <p v-if="current && step?.line_glyphs.length" class="jottings">
      <span v-for="(glyphs, i) in step.line_glyphs" :key="i" class="jotting">
        <span v-if="open && step.line_hidden[i]" class="fill"><span class="sr-only">a jotting to fill in</span></span>
        <MathLine v-else :glyphs="glyphs" />
      </span>
    </p>
  </li>
</template>

<style scoped>
.line {
  --square: var(--base);
  --half: calc(var(--square) / 2);
  --half-x: calc(0.47 * var(--square));
  padding-bottom: calc(0.5 * var(--square));
  transition: opacity 0.3s;
}
.line[data-current='false'] {
  opacity: 0.62;
}
.line[data-current='true'] {
  --square: calc(1.12 * var(--base));
}
.line[data-answer='true'] :deep(.row)::after {
  content: '';
  position: absolute;
  left: calc(2 * var(--half-x) - 1px);
  right: calc(-0.2 * var(--square));
  top: calc(-0.14 * var(--square));
  bottom: calc(-0.24 * var(--square));
  border: 4px solid currentColor;
  border-radius: 6px;
}
.jottings {
  display: flex;
  flex-wrap: wrap;
  gap: 0.2em 1.4em;
  padding: 0.3em 0 0 var(--square);
  font-size: max(28px, 0.48 * var(--square));
  line-height: 1.3;
  color: var(--wall-quiet);
}
/* What is jotted below the answer stays clear of its box. */
.line[data-answer='true'] .jottings {
  padding-top: 0.9em;
}
.fill {
  display: inline-block;
  width: 6em;
  height: 1.1em;
  border: 2px dashed currentColor;
  vertical-align: middle;
}
</style>
