<script setup lang="ts">
import { computed } from 'vue'

import type { Row, Schemas } from '../api/client'
import { seenOf } from './seenOf'

const props = defineProps<{
  /** A written line or a whole sheet, with its cells in half squares, as the core lays it out. */
  row: Row | (Omit<Row, 'key' | 'hidden' | 'step'> & { key?: string; hidden?: boolean }) | Schemas['SheetView']
  /** What is said of it instead of its own words. */
  label?: string
  /** How many moments of a sheet are seen; all of them without it. */
  at?: number
  /** Of how many moments the blanks are filled in; of all or none, as *peek* says, without it. */
  filled?: number
  /** Whether a click on a number makes it a blank. */
  blanking?: boolean
  /** Whether what is under the blanks is shown. */
  peek?: boolean
}>()
const emit = defineEmits<{ blank: [key: string] }>()

const seen = computed(() => seenOf(props.row, !!props.peek, props.at, props.filled))
const filledIn = computed(() => 'hidden' in props.row && !!props.row.hidden && !props.peek)
const spoken = computed(() =>
  filledIn.value ? 'a line to fill in' : seen.value.open ? 'a line with blanks' : (props.label ?? props.row.spoken),
)

function choose(key: string): void {
  if (props.blanking && key) emit('blank', key)
}
</script>

<template>
  <div
    class="row"
    role="img"
    :aria-label="spoken"
    :data-hidden="filledIn"
    :data-blanking="blanking"
    :style="{ '--cols': row.width, '--rows': row.height }"
  >
    <span v-if="filledIn" class="fill" aria-hidden="true" />
    <span
      v-for="(fill, i) in filledIn ? [] : seen.fills"
      :key="`fill ${i}`"
      class="frame"
      aria-hidden="true"
      :style="{ '--x': fill.x, '--y': fill.y, '--w': fill.w, '--h': fill.h }"
    />
    <span
      v-for="(cell, i) in filledIn ? [] : seen.cells"
      :key="i"
      class="cell"
      :class="[cell.size, { below: cell.below, struck: cell.struck }]"
      :data-role="cell.role"
      aria-hidden="true"
      :data-blank="cell.blank"
      :data-key="cell.key"
      :style="{ '--x': cell.x, '--y': cell.y, '--w': cell.w }"
      @click="choose(cell.key)"
      >{{ cell.covered ? '' : cell.text }}</span
    >
    <span
      v-for="(rule, i) in filledIn ? [] : seen.rules"
      :key="`rule ${i}`"
      class="bar"
      :data-role="rule.role"
      aria-hidden="true"
      :style="{ '--x': rule.x, '--y': rule.y, '--len': rule.w }"
    />
  </div>
</template>

<style scoped>
/* On a wall without squares, digits may stand closer: --half-x. */
.row {
  --hx: var(--half-x, var(--half));
  position: relative;
  width: calc(var(--cols) * var(--hx));
  height: calc(var(--rows) * var(--half));
}
.cell {
  position: absolute;
  left: calc(var(--x) * var(--hx));
  top: calc(var(--y) * var(--half));
  width: calc(var(--w) * var(--hx));
  text-align: center;
  white-space: nowrap;
  letter-spacing: -0.04em; /* the digits of one number stand together */
  color: var(--role);
}
.half {
  height: var(--square);
  line-height: var(--square);
  font-size: calc(var(--square) * 25 / 22);
  margin-top: calc(var(--square) * -3 / 22);
}
/* Below the bar: a little air, as above it. */
.half.below {
  margin-top: calc(var(--square) * 3 / 22);
}
.small {
  height: var(--square);
  line-height: var(--square);
  font-size: calc(var(--square) * 17 / 22);
}
.tall {
  height: calc(2 * var(--square));
  line-height: calc(2 * var(--square));
  font-size: calc(var(--square) * 34 / 22);
}
/* Crossed out, as by a pen: from corner to corner of the digit. */
.struck::after {
  content: '';
  position: absolute;
  left: 15%;
  right: 15%;
  top: 50%;
  height: 2.5px;
  background: var(--role-carried);
  transform: rotate(-38deg);
}
.tall.struck::after {
  left: -5%;
  right: -5%;
}
/* What pupils fill in: an open box in the squares, dashed so that it is no answer box. */
.cell[data-blank='true'] {
  background: var(--paper);
  outline: 1.5px dashed var(--ink-quiet);
  outline-offset: -2px;
}
/* Where pupils write a hidden part of a sheet. */
.frame {
  position: absolute;
  left: calc(var(--x) * var(--hx) - 3px);
  top: calc(var(--y) * var(--half) - 3px);
  width: calc(var(--w) * var(--hx) + 6px);
  height: calc(var(--h) * var(--half) + 6px);
  border: 1.5px dashed var(--ink-quiet);
  background: var(--paper);
  border-radius: 3px;
}
/* As wide for every line: its length tells nothing. */
.fill {
  position: absolute;
  top: 2px;
  bottom: 2px;
  left: calc(var(--square) - 4px);
  width: calc(11 * var(--square));
  border: 1.5px dashed var(--ink-quiet);
  background: var(--paper);
  border-radius: 3px;
}
[data-blanking='true'] .cell:not([data-key='']) {
  cursor: pointer;
}
[data-blanking='true'] .cell:not([data-key='']):hover {
  background: var(--shade);
}
.bar {
  position: absolute;
  left: calc(var(--x) * var(--hx) + 1px);
  top: calc(var(--y) * var(--half) - max(1.5px, calc(var(--square) / 20)));
  width: calc(var(--len) * var(--hx) - 2px);
  height: max(2.5px, calc(var(--square) / 10));
  background: var(--role);
}
/* There backgrounds are gone, and a plate lies behind every text: bars and what is crossed out would go with them. */
@media (forced-colors: active) {
  .row {
    forced-color-adjust: preserve-parent-color;
  }
  .cell,
  .bar {
    color: inherit;
  }
  .bar,
  .struck::after {
    background: currentColor;
  }
  .frame,
  .fill,
  .cell[data-blank='true'] {
    background: Canvas;
    border-color: currentColor;
    outline-color: currentColor;
  }
}
</style>
