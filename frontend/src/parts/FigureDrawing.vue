<script setup lang="ts">
import { computed } from 'vue'

import type { Figure } from '../api/client'

const props = defineProps<{
  /** The display list of the core; this only draws it. */
  figure: Figure
}>()

// A line half outside the frame would be cut off, so the frame is a little wider than the figure.
const PAD = 2
const viewBox = computed(() => `${-PAD} ${-PAD} ${props.figure.width + 2 * PAD} ${props.figure.height + 2 * PAD}`)
</script>

<template>
  <svg
    class="figure"
    :viewBox="viewBox"
    :style="{ '--w': figure.width + 2 * PAD, '--h': figure.height + 2 * PAD }"
    role="img"
    :aria-label="figure.alt"
    preserveAspectRatio="xMinYMin meet"
  >
    <template v-for="(shape, i) in figure.shapes" :key="i">
      <rect
        v-if="shape.shape === 'part'"
        class="part" :x="shape.x" :y="shape.y" :width="shape.w" :height="shape.h"
        :data-role="shape.role" :fill="`url(#hatch-${shape.role})`"
      />
      <rect v-else-if="shape.shape === 'whole'" class="whole" :x="shape.x" :y="shape.y" :width="shape.w" :height="shape.h" />
      <line
        v-else-if="shape.shape === 'line'"
        :class="shape.weight" :x1="shape.x" :y1="shape.y" :x2="shape.x + shape.w" :y2="shape.y + shape.h"
      />
      <text v-else :x="shape.x" :y="shape.y" class="label" :data-role="shape.role">{{ shape.text }}</text>
    </template>
  </svg>
</template>

<style scoped>
/* Heights are whole squares of the paper, so that what follows sits in the squares again. */
.figure {
  --scale: 0.7px;
  display: block;
  width: calc(var(--w) * var(--scale));
  max-width: 100%;
  height: round(up, calc(var(--h) * var(--scale)), var(--square));
}
.whole { fill: none; stroke: var(--ink); stroke-width: 3; }
.thick { stroke: var(--ink); stroke-width: 3; }
.thin { stroke: var(--ink); stroke-width: 1; }
.cross { stroke: var(--ink); stroke-width: 2.6; }
.label { font: 20px var(--font); fill: var(--role); }
</style>
