<script setup lang="ts">
import { computed } from 'vue'

import type { Glyph } from '../api/client'
import FigureDrawing from '../parts/FigureDrawing.vue'
import FigureFiles from '../parts/FigureFiles.vue'
import MathLine from '../parts/MathLine.vue'
import { useExposure } from '../parts/useExposure'
import { useBench } from '../stores/bench'
import { usePaper } from '../stores/paper'

const props = defineProps<{
  /** The misconception whose wrong answer is shown below the right one. */
  code: string
  /** The problem, so that another one has its own picture. */
  problem: string
  /** What is shown where no working of it can be written: what is jotted. */
  jotted: Glyph[][]
}>()

const bench = useBench()
const paper = usePaper()
const { figure, lines } = useExposure(
  () => ({ set_id: bench.set?.id ?? '', example_id: paper.chosen ?? '', code: props.code }),
  () => props.problem,
)
const address = computed(
  () => `/api/sets/${bench.set?.id}/examples/${paper.chosen}/misconceptions/${props.code}/picture.svg`,
)
</script>

<template>
  <template v-if="lines">
    <p v-for="(glyphs, i) in lines.length ? lines : jotted" :key="i" :class="{ jotted: !lines.length }">
      <MathLine :glyphs="glyphs" />
    </p>
  </template>
  <slot />
  <div v-if="figure" class="seen">
    <FigureDrawing :figure="figure" />
    <FigureFiles :address="address" :name="code" />
  </div>
</template>

<style scoped>
.jotted {
  color: var(--role-wrong);
}
/* The picture has the whole width of the margin. */
.seen {
  margin: 4px 0 0 -76px;
}
.seen :deep(.figure) {
  height: auto;
}
</style>
