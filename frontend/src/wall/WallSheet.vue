<script setup lang="ts">
import { computed } from 'vue'

import type { Row, Schemas } from '../api/client'
import PaperRow from '../bench/PaperRow.vue'

const props = defineProps<{
  sheet: Schemas['SheetView']
  /** The problem as a line. */
  problem: Row
  /** The moment in hand, from 0; -1 while only the problem is seen. */
  current: number
  /** Whether the blanks of the moment in hand are still to be filled. */
  open: boolean
  /** Whether all of it is seen. */
  done: boolean
}>()

/** Decimals stand in columns only once they are written so; until then the problem stands in a line. */
const inLine = computed(() => props.current < 0 && !props.sheet.cells.some((cell) => cell.at === 0))
/** What is said of a sheet that is not all there yet: what was done so far. */
const soFar = computed(() => {
  const titles = props.sheet.moments.slice(0, props.current + 1).map((one) => one.title)
  return props.done ? undefined : [props.problem.spoken, ...titles].join(' ')
})
</script>

<template>
  <PaperRow v-if="inLine" :row="problem" :peek="!open" />
  <PaperRow v-else :row="sheet" :label="soFar" :at="current + 1" :filled="open ? current : current + 1" peek />
</template>
