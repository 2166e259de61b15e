<script setup lang="ts">
import type { Misconception } from '../api/client'
import FigureDrawing from '../parts/FigureDrawing.vue'
import MathLine from '../parts/MathLine.vue'
import { useExposure } from '../parts/useExposure'

const props = defineProps<{
  setId: string
  exampleId: string
  item: Misconception
  /** Whether it has been resolved: why it is wrong is shown. */
  resolved: boolean
}>()
const figure = useExposure(() => ({ set_id: props.setId, example_id: props.exampleId, code: props.item.code }))
</script>

<template>
  <section class="wrong" aria-live="polite">
    <div>
      <h2>What happened here?</h2>
      <p class="answer"><MathLine :glyphs="item.glyphs" :spoken="item.answer" /></p>
      <p v-for="(glyphs, i) in item.line_glyphs" :key="i" class="written"><MathLine :glyphs="glyphs" /></p>
      <template v-if="resolved">
        <p class="why">{{ item.reason }}</p>
        <p class="why">{{ item.question }}</p>
      </template>
    </div>
    <div v-if="figure && resolved" class="card paper-inks"><FigureDrawing :figure="figure" /></div>
  </section>
</template>

<style scoped>
.wrong {
  display: flex;
  gap: 3vw;
  align-items: start;
}
.wrong > div:first-child {
  flex: 1;
  display: grid;
  gap: 0.5em;
}
h2 {
  font-size: calc(0.6 * var(--square));
}
.answer {
  font-size: calc(1.5 * var(--square));
  line-height: 1.2;
  color: var(--role-wrong);
}
.written {
  font-size: calc(0.62 * var(--square));
  color: var(--role-wrong);
}
.why {
  font-size: calc(0.55 * var(--square));
  max-width: 34em;
}
.card {
  border-radius: 8px;
  padding: 2vh 1.4vw;
  width: 40vw;
}
.card :deep(.figure) {
  --scale: 10px;
  width: 100%;
  height: auto;
  max-height: 70vh;
}
</style>
