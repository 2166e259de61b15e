<script setup lang="ts">
import Button from 'primevue/button'
import { ref } from 'vue'

import type { Row, Schemas, Step } from '../api/client'
import MathLine from '../parts/MathLine.vue'
import { usePaper } from '../stores/paper'
import NoticedNotes from './NoticedNotes.vue'
import PaperRow from './PaperRow.vue'
import StepJotting from './StepJotting.vue'
import StepMark from './StepMark.vue'
import StepPicture from './StepPicture.vue'
import StepWords from './StepWords.vue'

defineProps<{
  step: Step
  /** What it ends in, written in the squares; left out where the layout shows it elsewhere. */
  row?: Row
  /** Its place in the working, from 0. */
  index: number
  /** Whether it ends in the answer. */
  last: boolean
  /** What it counts when it is marked. */
  mark?: Schemas['Points']
  /** Whether a click on a number makes it a blank. */
  blanking?: boolean
  /** Whether what is under the blanks is shown. */
  peek?: boolean
}>()
defineEmits<{ blank: [key: string] }>()

const paper = usePaper()
const open = ref(false)
</script>

<template>
  <li class="step">
    <p v-if="step.pause" class="pause">Try it yourself first.</p>
    <div class="written">
      <div v-if="row" :class="{ answer: last && !(row.hidden && !peek) }">
        <PaperRow :row="row" :blanking="blanking" :peek="peek" @blank="$emit('blank', $event)" />
      </div>
      <div v-if="!step.hidden || peek" class="jottings" :class="{ alone: !row }">
        <StepJotting
          v-for="(glyphs, i) in step.line_glyphs"
          :key="i"
          :glyphs="glyphs"
          :line-key="`${step.key} line ${i}`"
          :hidden="!!step.line_hidden[i]"
          :blanking="blanking"
          :peek="peek"
          @blank="$emit('blank', $event)"
        />
      </div>
    </div>
    <div class="note">
      <h3>
        <Button class="title keep-print" :aria-expanded="open" @click="open = !open">
          <span class="number" aria-hidden="true">{{ index + 1 }}</span>
          <MathLine :glyphs="step.title_glyphs" />
          <span class="why">{{ open ? 'less' : 'why?' }}</span>
        </Button>
      </h3>
      <NoticedNotes :step="index" />
      <p v-if="open && paper.pencil" class="mine">{{ step.reason }}</p>
      <template v-else-if="open">
        <StepWords :id="`title-${index}`" :step="step" which="title" label="What is done" />
        <StepWords :id="`reason-${index}`" :step="step" which="reason" label="Why" />
        <StepWords :id="`spoken-${index}`" :step="step" which="spoken" label="Say aloud" />
        <StepMark :step="step" :mark="mark" />
      </template>
      <p v-else-if="step.reason_from" class="mine">{{ step.reason }}</p>
      <StepPicture v-if="!step.hidden || peek" :step="step" :index="index" :open="open && !paper.pencil" />
    </div>
  </li>
</template>

<style scoped>
/* The box around the answer may stand a little out of its row. */
.step {
  display: grid;
  grid-template-columns: calc(14 * var(--square)) minmax(0, 1fr);
  column-gap: var(--square);
  padding-bottom: var(--square);
}
.written {
  min-width: 0;
  overflow-x: auto;
  overflow-y: hidden;
  padding: 8px 6px 0 0;
  margin-top: -8px;
}
.answer :deep(.row)::after {
  /* The answer is boxed in ink, around its squares and never through them. */
  content: '';
  position: absolute;
  left: calc(var(--square) - 2px);
  right: -5px;
  top: -6px;
  bottom: -6px;
  border: 2px solid var(--ink);
  border-radius: 3px;
}
.jottings {
  padding: var(--square) 0 0 var(--square);
}
.jottings.alone {
  padding-top: 0;
}
.pause {
  grid-column: 1 / -1;
  line-height: calc(2 * var(--square));
  font-weight: 700;
  border-top: 2px dashed var(--ink-quiet);
  margin-right: 12px;
}
.note {
  min-width: 0;
  padding-right: 12px;
}
h3 {
  font-size: 1rem;
}
.title {
  border: 0;
  background: none;
  color: inherit;
  text-align: left;
  padding: 0;
  cursor: pointer;
  font-weight: 700;
  line-height: var(--square);
  display: block;
  width: 100%;
  position: relative;
  padding-left: calc(1.5 * var(--square));
}
.title :deep(.fraction) {
  line-height: 1;
  font-size: 0.7em;
  margin: 0 2px;
}
.number {
  position: absolute;
  left: 0;
  top: 0;
  width: var(--square);
  height: var(--square);
  line-height: calc(var(--square) - 3px);
  border: 1.5px solid var(--ink);
  border-radius: 50%;
  text-align: center;
  font-size: 0.85rem;
  font-weight: 400;
}
.why {
  line-height: 0;
  font-weight: 400;
  font-size: 0.85rem;
  color: var(--ink-quiet);
  margin-left: 0.6em;
  text-decoration: underline;
  text-underline-offset: 3px;
}
.mine {
  font-size: 0.92rem;
  line-height: var(--square);
  color: var(--ink-quiet);
}
/* On a narrow sheet what is read stands below what is written: on plain paper, too. */
@media (max-width: 1180px) {
  .step {
    grid-template-columns: 1fr;
  }
  .note {
    margin: var(--square) 0 0 calc(-1 * var(--square));
    padding: 0 12px 0 var(--square);
    background: var(--paper);
  }
}
</style>
