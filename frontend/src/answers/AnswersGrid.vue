<script setup lang="ts">
import { StorageSerializers, useStorage } from '@vueuse/core'
import Textarea from 'primevue/textarea'
import { computed, nextTick, onMounted, ref, watch } from 'vue'

import type { AnswerEntry } from '../api/client'
import limits from '../parts/limits.json'
import MathLine from '../parts/MathLine.vue'
import GridRow from './GridRow.vue'
import { useCellInHand } from './useCellInHand'
import type { SittingDesk } from './useSitting'

const props = defineProps<{ desk: SittingDesk }>()
const emit = defineEmits<{ pick: [pupil: string, number: number]; overrule: [] }>()

const pupils = computed(() => props.desk.sitting.value?.pupils ?? [])
const questions = computed(() => props.desk.sitting.value?.questions ?? [])
const table = ref<HTMLTableElement | null>(null)
const area = ref<{ $el: HTMLTextAreaElement } | null>(null)
const field = computed(() => area.value?.$el ?? null)
const hand = useCellInHand(
  () => pupils.value.length,
  () => questions.value.length,
)
const pupil = computed(() => pupils.value[hand.row.value])
const written = () => {
  if (!pupil.value) return ''
  const entry = props.desk.pending.get(props.desk.keyOf(pupil.value.id, hand.column.value))
  if (entry) return entry.written ?? ''
  return props.desk.rows.get(pupil.value.id)?.[hand.column.value]?.written ?? ''
}

// What is typed
// ---------------------------------------------------------------------------------------------------------

const draft = ref<string | null>(null)
const place = ref({ left: '0px', top: '0px', width: '0px', height: '0px' })
/** What is being typed outlives a reload. */
const typed = useStorage<{ pupil_id: string; number: number; text: string } | null>(
  `keen-slate-typed ${props.desk.sitting.value?.id}`,
  null,
  localStorage,
  { serializer: StorageSerializers.object, flush: 'sync' },
)

function begin(text: string): void {
  draft.value = text
  const cell = cellInHand()
  if (cell)
    place.value = {
      left: `${cell.offsetLeft}px`,
      top: `${cell.offsetTop}px`,
      width: `${cell.offsetWidth}px`,
      height: `${cell.offsetHeight}px`,
    }
  void nextTick(() => {
    field.value?.focus()
    field.value?.setSelectionRange(text.length, text.length)
    grow()
  })
}

/** A working of several lines opens larger. */
function grow(): void {
  const one = field.value
  if (!one) return
  one.style.height = 'auto'
  one.style.height = `${Math.max(one.scrollHeight + 2, parseInt(place.value.height))}px`
}

watch(draft, (text) => {
  typed.value = text === null || !pupil.value ? null : { pupil_id: pupil.value.id, number: hand.column.value, text }
})

function commit(): void {
  const text = draft.value
  draft.value = null
  if (text !== null && text !== written() && pupil.value)
    put([{ pupil_id: pupil.value.id, number: hand.column.value, written: text.trim(), gone: false }])
}

function leave(): void {
  draft.value = null
  table.value?.focus()
}

const put = (entries: AnswerEntry[]) => props.desk.enter(entries)

function one(written: string | null, gone = false): void {
  if (pupil.value) put([{ pupil_id: pupil.value.id, number: hand.column.value, written, gone }])
}

/** The answer that is right, as a pupil would write it, in one cell or from here to the end of the row. */
function right(whole: boolean): void {
  const who = pupil.value
  if (!who) return
  const from = whole ? 0 : hand.column.value
  const to = whole ? questions.value.length : from + 1
  put(
    questions.value
      .map((question, number) => ({ pupil_id: who.id, number, written: question.answer, gone: false }))
      .slice(from, to)
      .filter((entry) => !whole || !props.desk.rows.get(who.id)?.[entry.number]),
  )
}

function away(): void {
  const who = pupil.value
  if (!who) return
  put(questions.value.map((_, number) => ({ pupil_id: who.id, number, written: null, gone: false })))
}

// Keys
// ------------------------------------------------------------------------------------------------------------------

const COMMANDS: Record<string, () => void> = {
  b: () => (one(''), hand.goOn()),
  r: () => (right(false), hand.goOn()),
  R: () => (right(true), hand.go(hand.row.value + 1, 0)),
  a: () => (away(), hand.go(hand.row.value + 1, 0)),
  o: () => emit('overrule'),
  Delete: () => one(null, true),
  Backspace: () => one(null, true),
  F2: () => begin(written()),
}

function key(event: KeyboardEvent): void {
  if (draft.value !== null) return typing(event)
  if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'z') return stop(event, props.desk.undo)
  if ((event.ctrlKey && !['Home', 'End'].includes(event.key)) || event.metaKey || event.altKey) return
  if (hand.key(event)) return stop(event)
  const command = COMMANDS[event.key]
  if (command) return stop(event, command)
  if (event.key.length === 1 && !/[a-z]/i.test(event.key)) stop(event, () => begin(event.key))
}

function typing(event: KeyboardEvent): void {
  if (event.key === 'Escape') return stop(event, leave)
  if (event.key === 'Enter' && event.shiftKey) return // a line more
  const moves: Record<string, [number, number]> = { Enter: [1, 0], Tab: [0, event.shiftKey ? -1 : 1] }
  const by = moves[event.key]
  if (!by) return
  stop(event, () => {
    commit()
    hand.step(...by)
    table.value?.focus()
  })
}

function stop(event: KeyboardEvent, act?: () => void): void {
  event.preventDefault()
  event.stopPropagation()
  act?.()
}

/** A block from a spreadsheet, put down from the cell in hand; what would fall off the table is said. */
const said = ref('')
function paste(event: ClipboardEvent): void {
  const text = event.clipboardData?.getData('text/plain') ?? ''
  if (draft.value !== null || !/[\t\n]/.test(text.trim())) {
    if (draft.value === null && text.trim()) one(text.trim().slice(0, limits.answer))
    return
  }
  event.preventDefault()
  const block = text
    .replace(/\r/g, '')
    .replace(/\n$/, '')
    .split('\n')
    .map((line) => line.split('\t'))
  const entries: AnswerEntry[] = []
  let over = 0
  block.forEach((cells, i) =>
    cells.forEach((cell, j) => {
      const who = pupils.value[hand.row.value + i]
      const number = hand.column.value + j
      if (who && number < questions.value.length)
        entries.push({ pupil_id: who.id, number, written: cell.trim().slice(0, limits.answer), gone: false })
      else over += 1
    }),
  )
  put(entries)
  said.value = over ? `${entries.length} answers were entered; ${over} fell beyond the table and were left out.` : ''
}

// The cell in hand
// ------------------------------------------------------------------------------------------------------

const cellInHand = () => (pupil.value ? document.getElementById(`cell-${pupil.value.id}-${hand.column.value}`) : null)

watch([hand.row, hand.column, pupil], () => {
  cellInHand()?.scrollIntoView({ block: 'nearest', inline: 'nearest' })
  if (pupil.value) emit('pick', pupil.value.id, hand.column.value)
})

function pick(row: number, column: number): void {
  if (draft.value !== null) commit()
  hand.go(row, column)
  void nextTick(() => table.value?.focus())
}

onMounted(() => {
  const kept = typed.value
  const row = pupils.value.findIndex((one) => one.id === kept?.pupil_id)
  if (kept && row >= 0) {
    hand.go(row, kept.number)
    void nextTick(() => begin(kept.text))
  }
  if (pupil.value) emit('pick', pupil.value.id, hand.column.value)
})

const share = (i: number) => {
  const tally = props.desk.tally.value
  return { '--share': `${(100 * (tally?.right[i] ?? 0)) / Math.max(1, tally?.answered[i] ?? 0)}%` }
}
defineExpose({ focus: () => table.value?.focus() })
</script>

<template>
  <div class="wide">
    <table
      ref="table"
      role="grid"
      tabindex="0"
      aria-label="What they wrote: pupils down, problems across"
      :aria-rowcount="pupils.length + 1"
      :aria-colcount="questions.length + 2"
      :aria-activedescendant="pupil ? `cell-${pupil.id}-${hand.column.value}` : undefined"
      aria-describedby="grid-keys"
      @keydown="key"
      @paste="paste"
    >
      <thead>
        <tr role="row" aria-rowindex="1">
          <th role="columnheader" scope="col"><span class="sr-only">Pupil</span></th>
          <th v-for="(question, i) in questions" :key="i" role="columnheader" scope="col">
            <MathLine :glyphs="question.glyphs" :spoken="question.spoken" />
            <span class="share" :style="share(i)">
              <span class="sr-only"
                >{{ desk.tally.value?.right[i] }} of {{ desk.tally.value?.answered[i] }} right</span
              ></span
            >
          </th>
          <th role="columnheader" scope="col" class="points">marks<br />of {{ desk.tally.value?.of }}</th>
        </tr>
      </thead>
      <tbody>
        <GridRow
          v-for="(who, i) in pupils"
          :key="who.id"
          :pupil="who"
          :at="i + 2"
          :desk="desk"
          :column="hand.row.value === i ? hand.column.value : -1"
          @pick="pick(i, $event)"
          @open="begin(written())"
        />
      </tbody>
    </table>
    <Textarea
      v-if="draft !== null"
      ref="area"
      v-model="draft"
      class="draft"
      rows="1"
      :style="place"
      :maxlength="limits.answer"
      :aria-label="`${pupil?.alias}, problem ${hand.column.value + 1}`"
      spellcheck="false"
      autocomplete="off"
      @input="grow"
      @keydown="key"
      @blur="commit"
    />
  </div>
  <p v-if="said" class="said" role="status">{{ said }}</p>
  <p id="grid-keys" class="keys">
    Type in a cell; <kbd>Enter</kbd> goes down, <kbd>Tab</kbd> right, <kbd>Shift Enter</kbd> begins a line of a working.
    <kbd>r</kbd> right, <kbd>R</kbd> the rest of the row right, <kbd>b</kbd> blank, <kbd>a</kbd> away,
    <kbd>Delete</kbd> empty, <kbd>o</kbd> your own word, <kbd>Ctrl Z</kbd> undo. A block from a spreadsheet can be
    pasted. <kbd>Esc</kbd>, then <kbd>Tab</kbd>, leaves the table.
  </p>
</template>

<style scoped src="./grid.css"></style>
