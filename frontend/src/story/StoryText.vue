<script setup lang="ts">
import { computed } from 'vue'

import type { Glyph, Story } from '../api/client'
import MathLine from '../parts/MathLine.vue'

const props = withDefaults(
  defineProps<{
    story: Story
    /** Whether the question is seen. */
    asks?: boolean
    /** Without inks: they tell which numbers are needed. */
    plain?: boolean
  }>(),
  { asks: true, plain: false },
)
const inked = (glyphs: Glyph[]) => (props.plain ? glyphs.map((glyph) => ({ ...glyph, role: '' as const })) : glyphs)
const pieces = computed(() => props.story.pieces.filter((piece) => props.asks || !piece.asks))
/** Without the amount of a row nobody knows what the row tells. */
const rows = computed(() =>
  props.story.table.flatMap((row) => {
    const amount = props.story.quantities[row.quantity]
    return amount ? [{ name: row.name, amount }] : []
  }),
)
</script>

<template>
  <div class="told">
    <table v-if="rows.length">
      <tbody>
        <tr v-for="row in rows" :key="row.name">
          <th scope="row">{{ row.name }}</th>
          <td><MathLine :glyphs="inked(row.amount.glyphs)" /> {{ row.amount.unit }}</td>
        </tr>
      </tbody>
    </table>
    <p class="text">
      <span
        v-for="(piece, i) in pieces"
        :key="i"
        :class="{
          quantity: piece.quantity !== null,
          unneeded: story.quantities[piece.quantity ?? -1]?.needed === false,
        }"
        ><MathLine :glyphs="inked(piece.glyphs)"
      /></span>
    </p>
  </div>
</template>

<style scoped>
.text {
  white-space: pre-line;
}
.quantity :deep(.words),
.quantity :deep(.number) {
  color: var(--role);
}
.quantity {
  font-weight: 700;
  white-space: nowrap;
}
.unneeded {
  font-weight: 400;
}
table {
  border-collapse: collapse;
  margin-bottom: 0.4em;
}
th,
td {
  border: 1px solid currentColor;
  padding: 0.1em 0.7em;
  text-align: left;
  font-weight: 400;
}
</style>
