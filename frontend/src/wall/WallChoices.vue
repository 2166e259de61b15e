<script setup lang="ts">
import type { Row, Schemas } from '../api/client'
import PaperRow from '../bench/PaperRow.vue'
import MathLine from '../parts/MathLine.vue'

const props = defineProps<{
  /** The problem as a line. */
  problem: Row
  choices: Schemas['ChoiceView'][]
  /** Whether it is told which one is right, and what the others tell. */
  told: boolean
}>()

/** No ink tells which is right before the class has chosen. */
const plain = (one: Schemas['ChoiceView']) => one.glyphs.map((glyph) => ({ ...glyph, role: '' as const }))
const glyphs = (one: Schemas['ChoiceView']) => (props.told && !one.right ? one.glyphs : plain(one))
</script>

<template>
  <section aria-live="polite">
    <PaperRow :row="problem" peek />
    <ol class="choices">
      <li v-for="one in choices" :key="one.label" :data-right="told && one.right">
        <strong>{{ one.label }}</strong>
        <MathLine :glyphs="glyphs(one)" :spoken="one.answer" />
        <small v-if="told">{{ one.right ? 'right' : one.names.join(', or ') }}</small>
      </li>
    </ol>
  </section>
</template>

<style scoped>
.choices {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: calc(0.4 * var(--square)) 3vw;
  padding-top: calc(0.8 * var(--square));
  font-size: calc(0.95 * var(--square));
}
li {
  display: grid;
  grid-template-columns: 1.2em minmax(0, 1fr);
  align-items: center;
  border: 3px solid transparent;
  border-radius: 8px;
  padding: 0 0.3em;
}
li[data-right='true'] {
  border-color: currentColor;
}
small {
  grid-column: 2;
  font-size: calc(0.42 * var(--square));
  color: var(--wall-quiet);
}
</style>
