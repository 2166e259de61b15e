<script setup lang="ts">
import type { Working } from '../api/client'
import MathLine from '../parts/MathLine.vue'
import type { WallShow } from './useWallShow'
import WallBoxes from './WallBoxes.vue'
import WallLine from './WallLine.vue'
import WallSheet from './WallSheet.vue'
import WallStory from './WallStory.vue'

/** A working as far as it is uncovered: line by line, a sheet mark by mark, or box by box. */
defineProps<{ show: WallShow; working: Working }>()
</script>

<template>
  <WallStory
    v-if="working.story"
    :story="working.story"
    :asks="show.isTold('question')"
    :large="!show.isTold('calculation')"
    :model="show.isTold('calculation') ? null : show.figure"
  />
  <p v-if="working.problem.task" class="task">{{ working.problem.task }}</p>
  <ol v-if="show.isTold('calculation') && !working.boxes.length && !working.sheet">
    <WallLine
      v-for="(row, i) in working.rows.slice(0, show.current + 2)"
      :key="i"
      :row="row"
      :step="working.steps[i - 1]"
      :current="i === show.current + 1"
      :open="show.isOpen(i - 1)"
      :last="i > 0 && i === working.rows.length - 1"
    />
  </ol>
  <template v-else-if="show.isTold('calculation')">
    <ol>
      <WallLine
        v-if="working.rows[0] && !working.sheet"
        :row="working.rows[0]"
        :current="show.current < 0"
        :open="false"
        :last="false"
      />
    </ol>
    <WallSheet
      v-if="working.sheet && working.rows[0]"
      class="whole"
      :sheet="working.sheet"
      :problem="working.rows[0]"
      :current="show.current"
      :open="show.isOpen(show.current)"
      :done="show.done"
    />
    <WallBoxes
      :boxes="working.boxes.slice(0, show.current + 1)"
      :current="show.current"
      :open="show.isOpen(show.current)"
    />
  </template>
  <p v-if="working.story && show.isTold('sentence')" class="label">
    <MathLine :glyphs="working.story.answer_glyphs" :spoken="working.story.answer" />
  </p>
  <p v-else-if="show.done && !working.story && working.problem.label" class="label">
    Answer: <MathLine :glyphs="working.answer.labelled" />
  </p>
</template>

<style scoped>
.task {
  font-size: calc(0.62 * var(--square));
  color: var(--wall-quiet);
}
.label {
  font-size: calc(0.8 * var(--square));
  padding: 0.2em 0 0 var(--square);
}
</style>
