<script setup lang="ts">
import { computed } from 'vue'

import type { AnswerCell, Pupil } from '../api/client'
import MathLine from '../parts/MathLine.vue'
import { SAID, SIGNS } from './cells'
import type { SittingDesk } from './useSitting'

const props = defineProps<{
  pupil: Pupil
  /** Its place among the rows, counted from 1 with the head. */
  at: number
  desk: SittingDesk
  /** The cell in hand; -1 where it is in another row. */
  column: number
}>()
defineEmits<{ pick: [column: number]; open: [column: number] }>()

// What rests on the sitting is looked up here, so that only the rows that change are drawn again.
const cells = computed(() => props.desk.rows.get(props.pupil.id) ?? [])
const points = computed(() => props.desk.tally.value?.points[props.pupil.id] ?? 0)
const waiting = computed(() => cells.value.map((_, i) => props.desk.pending.get(props.desk.keyOf(props.pupil.id, i))))
const shown = computed(() =>
  cells.value.map((cell, i) => {
    const entry = waiting.value[i]
    if (entry)
      return { cell: null, text: entry.gone ? '' : (entry.written ?? 'away'), said: 'waiting', label: 'being judged' }
    if (!cell) return { cell, text: '', said: 'none', label: 'nothing entered' }
    const many = lines(cell) > 1 ? `${lines(cell)} lines` : ''
    const label = [cell.written, many, cell.name || SAID[cell.said], cell.overruled ? 'by your word' : '']
    return { cell, text: '', said: cell.said, label: label.filter(Boolean).join(', ') }
  }),
)
const lines = (cell: AnswerCell) => (cell.written ?? '').split('\n').filter((line) => line.trim()).length
</script>

<template>
  <tr role="row" :aria-rowindex="at">
    <th role="rowheader" scope="row" :data-left="!pupil.here">{{ pupil.alias }}</th>
    <td
      v-for="(one, i) in shown"
      :id="`cell-${pupil.id}-${i}`"
      :key="i"
      role="gridcell"
      :aria-colindex="i + 2"
      :aria-selected="column === i"
      :aria-label="`${pupil.alias}, problem ${i + 1}: ${one.label}`"
      :data-said="one.said"
      :class="{ hand: column === i }"
      @mousedown.left="$emit('pick', i)"
      @dblclick="$emit('open', i)"
    >
      <span v-if="one.text" class="waiting">{{ one.text }}</span>
      <template v-else-if="one.cell">
        <span v-if="one.cell.glyphs.length" class="wrote"><MathLine :glyphs="one.cell.glyphs" /></span>
        <span v-if="SIGNS[one.cell.said]" class="sign" aria-hidden="true">{{ SIGNS[one.cell.said] }}</span>
        <span v-if="lines(one.cell) > 1" class="lines">{{ lines(one.cell) }} lines</span>
        <small v-if="one.cell.name && !['blank', 'away', 'unexplained'].includes(one.cell.said)">{{
          one.cell.name
        }}</small>
        <span v-if="one.cell.overruled" class="word-of" title="By your word" aria-hidden="true">✓</span>
      </template>
    </td>
    <td
      role="gridcell"
      class="points"
      :aria-colindex="cells.length + 2"
      :aria-label="`${pupil.alias}: ${points} points`"
    >
      {{ points }}
    </td>
  </tr>
</template>
