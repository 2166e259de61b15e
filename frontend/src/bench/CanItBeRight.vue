<script setup lang="ts">
import type { Working } from '../api/client'
import MathLine from '../parts/MathLine.vue'

defineProps<{ working: Working }>()
</script>

<template>
  <section aria-labelledby="right-heading">
    <h2 id="right-heading">Can it be right?</h2>
    <p class="about">about <MathLine :glyphs="working.estimate.glyphs" /></p>
    <p class="from">from <MathLine :glyphs="working.estimate.sum_glyphs" /></p>
    <p>
      <MathLine :glyphs="working.answer.glyphs" /> is {{ working.estimate.within ? 'at most' : 'more than' }}
      <MathLine :glyphs="working.estimate.bound_glyphs" /> away.
      {{ working.estimate.within ? 'Reasonable.' : 'Too far off.' }}
    </p>
    <p v-if="working.estimate.tie_glyphs.length" class="tie"><MathLine :glyphs="working.estimate.tie_glyphs" /></p>
  </section>
</template>

<style scoped>
.about { font-size: 1.5rem; line-height: 1.5; }
.from { font-size: 1.1rem; color: var(--ink-quiet); padding-bottom: 4px; }
.tie { font-size: 0.9rem; color: var(--ink-quiet); padding-top: 4px; }
</style>
