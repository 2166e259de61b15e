<script setup lang="ts">
import type { Working } from '../api/client'
import FigureDrawing from '../parts/FigureDrawing.vue'
import MathLine from '../parts/MathLine.vue'
import { usePaper } from '../stores/paper'
import PupilsEstimate from './PupilsEstimate.vue'

defineProps<{ working: Working }>()
const paper = usePaper()
</script>

<template>
  <section v-if="working.estimate" aria-labelledby="right-heading">
    <h2 id="right-heading">Can it be right?</h2>
    <template v-if="working.estimate.rule === 'between'">
      <p class="about">
        from <MathLine :glyphs="working.estimate.low_glyphs" /> to <MathLine :glyphs="working.estimate.high_glyphs" />
      </p>
      <p>
        <MathLine :glyphs="working.answer.glyphs" /> is
        {{ working.estimate.within ? 'inside. It can be right.' : 'outside. It cannot be right.' }}
      </p>
    </template>
    <template v-else>
      <p class="about">about <MathLine :glyphs="working.estimate.glyphs" /></p>
      <p class="from">from <MathLine :glyphs="working.estimate.sum_glyphs" /></p>
      <p v-if="working.estimate.within === null">
        <MathLine :glyphs="working.answer.glyphs" /> has no bound to keep here: only compare the size.
      </p>
      <p v-else>
        <MathLine :glyphs="working.answer.glyphs" /> is {{ working.estimate.within ? 'at most' : 'more than' }}
        <MathLine :glyphs="working.estimate.bound_glyphs" /> away.
        {{ working.estimate.within ? 'Reasonable.' : 'Too far off.' }}
      </p>
      <p v-if="working.estimate.tie_glyphs.length" class="tie"><MathLine :glyphs="working.estimate.tie_glyphs" /></p>
    </template>
    <FigureDrawing v-if="working.estimate.figure" class="line" :figure="working.estimate.figure" />
    <ul v-if="working.checks.length" class="checks">
      <li v-for="(glyphs, i) in working.checks" :key="i"><MathLine :glyphs="glyphs" /></li>
    </ul>
    <PupilsEstimate v-if="!paper.pencil" :working="working" />
  </section>
</template>

<style scoped>
.about {
  font-size: 1.5rem;
  line-height: 1.5;
}
.from {
  font-size: 1.1rem;
  color: var(--ink-quiet);
  padding-bottom: 4px;
}
.line {
  height: auto;
  margin-top: 4px;
}
.checks {
  padding-top: 6px;
  display: grid;
  gap: 3px;
  font-size: 0.95rem;
}
.checks li::before {
  content: '· ';
}
.tie {
  font-size: 0.9rem;
  color: var(--ink-quiet);
  padding-top: 4px;
}
</style>
