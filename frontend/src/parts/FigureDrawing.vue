<script setup lang="ts">
import { computed } from 'vue'

import type { Figure, Mark } from '../api/client'

const props = withDefaults(
  defineProps<{
    /** The display list of the core; this only places it. */
    figure: Figure
    /** Which state of an action is seen; a change between the two is animated. */
    state?: 'before' | 'after'
  }>(),
  { state: 'after' },
)

// A line half outside the frame would be cut off, so the frame is a little wider than the figure.
const PAD = 3
const viewBox = computed(() => `${-PAD} ${-PAD} ${props.figure.width + 2 * PAD} ${props.figure.height + 2 * PAD}`)

function place(mark: Mark): Record<string, string> | undefined {
  if (mark.dx === '0' && mark.dy === '0' && mark.turn === '0') return undefined
  if (props.state === 'after') return { transform: 'none', transformOrigin: `${mark.x}px ${mark.y}px` }
  const transform = `translate(${mark.dx}px, ${mark.dy}px) rotate(${mark.turn}deg)`
  return { transform, transformOrigin: `${mark.x}px ${mark.y}px` }
}
</script>

<template>
  <svg
    class="figure"
    :viewBox="viewBox"
    :style="{ '--w': figure.width + 2 * PAD, '--h': figure.height + 2 * PAD }"
    role="img"
    :aria-label="figure.alt"
    :data-state="state"
    preserveAspectRatio="xMinYMin meet"
  >
    <template v-for="(mark, i) in figure.marks" :key="i">
      <text
        v-if="mark.text"
        :x="mark.x"
        :y="mark.y"
        :text-anchor="mark.anchor"
        :class="['mark', mark.look, { gone: mark.when && mark.when !== state }]"
        :data-role="mark.role"
      >
        {{ mark.text }}
      </text>
      <path
        v-else
        :d="mark.d"
        :class="['mark', mark.look, { gone: mark.when && mark.when !== state }]"
        :data-role="mark.role"
        :fill="mark.look === 'part' ? `url(#hatch-${mark.role})` : undefined"
        :style="place(mark)"
      />
    </template>
  </svg>
</template>

<style scoped>
/* Heights are whole squares of the paper, so that what follows sits in the squares again. */
.figure {
  --scale: 0.66px;
  display: block;
  width: calc(var(--w) * var(--scale));
  max-width: 100%;
  height: round(up, calc(var(--h) * var(--scale)), var(--square));
}
.mark {
  transition:
    transform 0.9s ease-in-out,
    opacity 0.6s ease-in-out;
  stroke: var(--ink);
}
.gone {
  opacity: 0;
}
.part {
  stroke: none;
}
.whole {
  fill: none;
  stroke-width: 2.4;
}
.block {
  fill: none;
  stroke-width: 2.4;
}
.thick {
  stroke-width: 2.2;
}
.thin {
  stroke-width: 0.9;
}
.cross {
  stroke-width: 2.4;
  stroke-linecap: round;
}
.axis {
  stroke-width: 2;
}
.jump {
  fill: none;
  stroke: var(--role);
  stroke-width: 2.4;
  stroke-linecap: round;
}
.bar {
  stroke: var(--role);
  stroke-width: 1.6;
}
.leader {
  stroke: var(--role);
  stroke-width: 1.2;
  stroke-dasharray: 3 3;
}
.dot {
  fill: var(--role);
  stroke: var(--paper);
  stroke-width: 1.4;
}
.plate {
  fill: var(--paper);
  stroke: none;
}
.blank {
  fill: var(--paper);
  stroke-width: 1.6;
  stroke-dasharray: 6 5;
}
.label {
  font: 20px var(--font);
  fill: var(--role);
  stroke: none;
  font-variant-numeric: tabular-nums;
}
@media (prefers-reduced-motion: reduce) {
  .mark {
    transition: none;
  }
}
</style>
