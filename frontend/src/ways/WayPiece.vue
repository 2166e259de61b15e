<script setup lang="ts">
import type { Schemas } from '../api/client'
import PaperRow from '../bench/PaperRow.vue'
import MathLine from '../parts/MathLine.vue'

/** A small piece of real working on squared paper, in which a way can be seen. */
defineProps<{ way: Schemas['ShownWay'] }>()
</script>

<template>
  <span class="piece" :data-written="!way.sentence.length && !way.boxes.length">
    <MathLine v-if="way.sentence.length" class="sentence" :glyphs="way.sentence" />
    <PaperRow v-else-if="way.sheet" :row="way.sheet" peek />
    <span v-else-if="way.boxes.length" class="boxes">
      <span v-for="box in way.boxes" :key="box.title" class="box"
        ><small>{{ box.title }} {{ box.answer }}</small>
        <PaperRow v-for="(row, i) in box.rows" :key="i" :row="row" peek />
      </span>
    </span>
    <template v-else>
      <PaperRow :row="way.start" peek />
      <template v-for="(step, i) in way.steps" :key="i">
        <PaperRow v-if="step.row" :row="step.row" peek />
        <MathLine v-for="(line, j) in step.lines" :key="`line ${j}`" class="jotting" :glyphs="line" />
      </template>
    </template>
  </span>
</template>

<style scoped>
.piece {
  --square: 14px;
  --half: 7px;
  display: grid;
  gap: 7px;
  justify-content: start;
  min-height: 56px;
  max-height: 250px;
  overflow: hidden;
  line-height: 1.3;
}
/* Squares where one writes in squares; what is read stands on plain paper. */
.piece[data-written='true'] {
  justify-content: stretch;
  background:
    linear-gradient(var(--squares) 1px, transparent 1px) 0 -1px / 14px 14px,
    linear-gradient(90deg, var(--squares) 1px, transparent 1px) -1px 0 / 14px 14px;
}
.sentence {
  font-size: 0.92rem;
}
.jotting {
  font-size: 0.78rem;
  color: var(--ink-quiet);
  padding-left: 14px;
}
.boxes {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 3px;
  --square: 11px;
  --half: 5.5px;
}
.box {
  border: 1px solid var(--ink-quiet);
  padding: 1px 3px;
  overflow: hidden;
  max-height: 78px;
}
small {
  font-size: 0.66rem;
  line-height: 1.15;
  display: block;
}
</style>
