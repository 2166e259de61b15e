<script setup lang="ts">
import type { Row } from '../api/client'

/** Anything written in the squares: a row, or a whole stacked sheet. */
type Written = Pick<Row, 'cells' | 'rules' | 'width' | 'height' | 'spoken'>

defineProps<{
  /** A written line with its cells in half squares, as the core lays it out. */
  row: Written
}>()
</script>

<template>
  <div class="row" role="img" :aria-label="row.spoken" :style="{ '--cols': row.width, '--rows': row.height }">
    <span
      v-for="(cell, i) in row.cells" :key="i" class="cell" :class="[cell.size, { below: cell.below, struck: cell.struck }]" :data-role="cell.role" aria-hidden="true"
      :style="{ '--x': cell.x, '--y': cell.y }"
    >{{ cell.text }}</span>
    <span
      v-for="(rule, i) in row.rules" :key="`rule ${i}`" class="bar" :data-role="rule.role" aria-hidden="true"
      :style="{ '--x': rule.x, '--y': rule.y, '--len': rule.w }"
    />
  </div>
</template>

<style scoped>
.row { position: relative; width: calc(var(--cols) * var(--half)); height: calc(var(--rows) * var(--half)); }
.cell {
  position: absolute; left: calc(var(--x) * var(--half)); top: calc(var(--y) * var(--half)); width: var(--square);
  text-align: center; color: var(--role);
}
.half { height: var(--square); line-height: var(--square); font-size: 25px; margin-top: -3px; }
/* Below the bar: a little air, as above it. */
.half.below { margin-top: 3px; }
.small { height: var(--square); line-height: var(--square); font-size: 17px; }
.tall { height: calc(2 * var(--square)); line-height: calc(2 * var(--square)); font-size: 34px; }
/* Crossed out, as by a pen: from corner to corner of the digit. */
.struck::after {
  content: ''; position: absolute; left: 15%; right: 15%; top: 50%; height: 2.5px; background: var(--role-carried);
  transform: rotate(-38deg);
}
.tall.struck::after { left: -5%; right: -5%; }
.bar {
  position: absolute; left: calc(var(--x) * var(--half) + 1px); top: calc(var(--y) * var(--half) - 1.5px);
  width: calc(var(--len) * var(--half) - 2px); height: 2.5px; background: var(--role);
}
</style>
