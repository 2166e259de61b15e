<script setup lang="ts">
import type { Glyph, Misconception, Row } from '../api/client'
import PaperRow from '../bench/PaperRow.vue'
import FigureDrawing from '../parts/FigureDrawing.vue'
import MathLine from '../parts/MathLine.vue'
import { useExposure } from '../parts/useExposure'

const props = defineProps<{
  setId: string
  exampleId: string
  /** The problem as a line; it stays in view. */
  problem: Row | undefined
  item: Misconception
  /** Whether it has been resolved: why it is wrong is shown. */
  resolved: boolean
}>()
const { figure, lines } = useExposure(() => ({
  set_id: props.setId,
  example_id: props.exampleId,
  code: props.item.code,
}))
/** The same in one ink: pupils are to find the line. */
const plain = (glyphs: Glyph[]) => glyphs.map((one) => ({ ...one, role: '' as const }))
</script>

<template>
  <section class="wrong" :data-resolved="resolved" :data-pictured="!!figure || resolved" aria-live="polite">
    <div class="worked">
      <h2>What happened here?</h2>
      <PaperRow v-if="problem" :row="problem" peek />
      <template v-if="lines?.length">
        <p v-for="(glyphs, i) in lines" :key="i" class="full">
          <MathLine :glyphs="resolved ? glyphs : plain(glyphs)" />
        </p>
      </template>
      <template v-else-if="lines">
        <p v-for="(glyphs, i) in item.line_glyphs" :key="i" class="written"><MathLine :glyphs="glyphs" /></p>
        <p class="answer">= <MathLine :glyphs="item.glyphs" :spoken="item.answer" /></p>
      </template>
    </div>
    <div v-if="figure || resolved" class="told">
      <div v-if="figure" class="card paper-inks"><FigureDrawing :figure="figure" /></div>
      <template v-if="resolved">
        <p class="why">{{ item.reason }}</p>
        <p class="why">{{ item.question }}</p>
      </template>
    </div>
  </section>
</template>

<style scoped>
.wrong {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 3vw;
  align-items: center;
}
.wrong[data-pictured='true'] {
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
}
.worked {
  display: grid;
  gap: calc(0.35 * var(--square));
}
h2 {
  font-size: calc(0.5 * var(--square));
  font-weight: 400;
  color: var(--wall-quiet);
}
/* As large as a right line; which one is wrong is told when it is resolved. */
.full {
  font-size: calc(1.3 * var(--square));
  line-height: 1.25;
  padding-left: calc(0.3 * var(--square));
}
.written,
.answer {
  font-size: calc(1.1 * var(--square));
  line-height: 1.25;
  color: var(--role-wrong);
  padding-left: calc(0.3 * var(--square));
}
.answer {
  font-size: calc(1.3 * var(--square));
}
.told {
  display: grid;
  gap: calc(0.4 * var(--square));
}
.why {
  font-size: calc(0.5 * var(--square));
}
.card {
  border-radius: 8px;
  padding: 2vh 1.4vw;
}
.card :deep(.figure) {
  --scale: 10px;
  width: 100%;
  height: auto;
  max-height: 60vh;
}
@media (max-width: 760px) {
  .wrong[data-pictured='true'] {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
