<script setup lang="ts">
import Button from 'primevue/button'
import { defineAsyncComponent, ref, watch } from 'vue'

import MathLine from '../parts/MathLine.vue'
import { onceOpened } from '../parts/onceOpened'
import { useBench } from '../stores/bench'
import { usePaper } from '../stores/paper'
import BenchStarts from './BenchStarts.vue'
import AnswerMark from './AnswerMark.vue'
import FadingBar from './FadingBar.vue'
import LayoutSwitch from './LayoutSwitch.vue'
import NoticedNotes from './NoticedNotes.vue'
import PaperBeside from './PaperBeside.vue'
import PaperBoxes from './PaperBoxes.vue'
import PaperRow from './PaperRow.vue'
import PaperStep from './PaperStep.vue'
import PaperStory from './PaperStory.vue'

const TellAsStory = defineAsyncComponent(() => import('../story/TellAsStory.vue'))
const bench = useBench()
const paper = usePaper()
const peek = ref(false)
const blanking = ref(false)
const telling = ref(false)
const tellingMet = onceOpened(telling)
/** What can be told as a story: a calculation with two numbers. */
const TOLD = ['add-subtract', 'decimal', 'multiply-divide']
watch(
  () => paper.chosen,
  () => (peek.value = blanking.value = false),
)

/** Make what *key* names a blank, or bring it back. */
async function toggle(key: string): Promise<void> {
  if (!blanking.value) return
  await paper.changeExample(({ fading }) => {
    const others = fading.blanks.filter((one) => one !== key)
    return { fading: { ...fading, blanks: others.length < fading.blanks.length ? others : [...others, key] } }
  })
}
</script>

<template>
  <article class="paper" :data-example="paper.chosen" :data-pencil="!!paper.pencil" aria-label="Working">
    <template v-if="paper.working">
      <div class="head">
        <p class="kind">
          {{ paper.working.problem.kind_name
          }}<template v-if="paper.working.problem.label">, in {{ paper.working.problem.label }}</template
          ><template v-if="paper.working.problem.task"
            >. <strong>{{ paper.working.problem.task }}</strong></template
          >
          <Button
            v-if="!paper.pencil && TOLD.includes(paper.working.problem.kind)"
            class="word"
            @click="telling = true"
          >
            Tell it as a story
          </Button>
        </p>
        <p v-if="paper.pencil" class="in-pencil" role="status"><strong>In pencil.</strong> Enter inks it.</p>
        <div v-else class="settings">
          <LayoutSwitch />
          <FadingBar v-model:peek="peek" v-model:blanking="blanking" />
        </div>
        <NoticedNotes :step="null" />
        <PaperStory
          v-if="paper.working.story && !paper.beside"
          :key="paper.chosen ?? ''"
          :story="paper.working.story"
          :blanking="blanking"
          :peek="peek"
          @blank="toggle"
        />
      </div>
      <div class="squared" :data-wide="paper.beside || paper.working.boxes.length > 0">
        <PaperBeside v-if="paper.beside" />
        <PaperRow
          v-else-if="paper.working.layout === 'line' && paper.working.rows[0]"
          class="start"
          :row="paper.working.rows[0]"
          :blanking="blanking"
          :peek="peek"
          @blank="toggle"
        />
        <PaperRow
          v-if="paper.working.sheet && !paper.beside"
          class="start"
          :row="paper.working.sheet"
          :blanking="blanking"
          :peek="peek"
          @blank="toggle"
        />
        <PaperBoxes
          v-if="paper.working.boxes.length && !paper.beside"
          :working="paper.working"
          :blanking="blanking"
          :peek="peek"
          @blank="toggle"
        />
        <ol v-else-if="!paper.beside">
          <PaperStep
            v-for="(step, i) in paper.working.steps"
            :key="`${paper.chosen} ${i}`"
            :step="step"
            :row="paper.working.layout === 'line' && !paper.working.sheet ? paper.working.rows[i + 1] : undefined"
            :index="i"
            :last="i === paper.working.steps.length - 1"
            :mark="paper.working.marks[i]"
            :blanking="blanking"
            :peek="peek"
            @blank="toggle"
          />
        </ol>
        <p v-if="!paper.working.steps.length" class="nothing">Nothing has to be done: this is its answer already.</p>
        <p v-if="paper.working.story" class="answer sentence">
          <span v-if="paper.working.story.answer_hidden && !peek" class="fill"
            ><span class="sr-only">a sentence to write</span></span
          >
          <MathLine v-else :glyphs="paper.working.story.answer_glyphs" :spoken="paper.working.story.answer" />
          <Button v-if="blanking" class="word" @click="toggle('sentence 0 row')">
            {{ paper.working.story.answer_hidden ? 'show it' : 'pupils write it' }}
          </Button>
        </p>
        <p v-else-if="paper.working.problem.label && (peek || !paper.working.steps.at(-1)?.hidden)" class="answer">
          Answer: <MathLine :glyphs="paper.working.answer.labelled" />
        </p>
        <AnswerMark v-if="!paper.pencil" />
      </div>
    </template>
    <p v-else-if="paper.example?.unreadable" class="nothing">
      {{ paper.example.unreadable }} It is kept as it was typed; type it anew on the left to work it.
    </p>
    <BenchStarts v-else-if="bench.set && !bench.examples.length" :key="bench.set.id" />
    <TellAsStory v-if="tellingMet" v-model:visible="telling" />
  </article>
</template>

<style scoped>
/* Squares where one writes, plain paper where one reads: the head, and the notes beside the working. */
.paper {
  min-height: 100%;
  line-height: var(--square);
  background: var(--paper);
  overflow-x: auto;
  display: grid;
  grid-template-rows: auto 1fr;
  align-content: start;
}
/* What stands there where nothing is worked: three starts, or why a text cannot be worked any more. */
.paper > :not(.head, .squared) {
  margin: var(--square);
}
.head {
  padding: 8px var(--square);
  border-bottom: 1px solid var(--squares);
}
.settings {
  display: flex;
  flex-wrap: wrap;
  gap: 0 calc(2 * var(--square));
}
/* Everything in it is a whole number of squares high, so every line of numerals sits in them. */
.squared {
  padding: var(--square) 0 calc(2 * var(--square)) var(--square);
  min-width: 0;
  background:
    linear-gradient(90deg, transparent calc(15 * var(--square)), var(--paper) calc(15 * var(--square))), var(--squared);
}
.squared[data-wide='true'] {
  background: var(--squared);
}
/* Pencil has no colours; what is in it is not kept yet. */
.paper[data-pencil='true'] {
  filter: grayscale(1);
}
.paper[data-pencil='true'] :deep(.answer .row)::after {
  border-style: dashed;
}
.start {
  margin-bottom: var(--square);
}
.kind {
  color: var(--ink-quiet);
  font-size: 0.88rem;
}
.nothing {
  padding: var(--square) 0;
}
.kind .word {
  padding: 0;
  margin-left: 0.7em;
  line-height: inherit;
  text-decoration: underline;
  text-underline-offset: 3px;
}
.sentence {
  font-weight: 700;
}
.sentence .word {
  font-weight: 400;
  font-size: 0.92rem;
  text-decoration: underline;
}
.sentence .fill {
  display: inline-block;
  width: 22em;
  max-width: 90%;
  height: calc(1.4 * var(--square));
  border: 1.5px dashed var(--ink-quiet);
  border-radius: 3px;
  vertical-align: middle;
  background: var(--paper);
}
.answer {
  font-size: 1.15rem;
  padding-left: var(--square);
}
@media (max-width: 1180px) {
  .squared {
    background: var(--squared);
  }
}
</style>
