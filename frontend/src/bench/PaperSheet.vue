<script setup lang="ts">
import { ref, watch } from 'vue'

import MathLine from '../parts/MathLine.vue'
import { useBench } from '../stores/bench'
import AnswerMark from './AnswerMark.vue'
import FadingBar from './FadingBar.vue'
import LayoutSwitch from './LayoutSwitch.vue'
import PaperBeside from './PaperBeside.vue'
import PaperBoxes from './PaperBoxes.vue'
import PaperRow from './PaperRow.vue'
import PaperStep from './PaperStep.vue'
import PaperStory from './PaperStory.vue'
import TellAsStory from '../story/TellAsStory.vue'

const bench = useBench()
const peek = ref(false)
const blanking = ref(false)
const telling = ref(false)
/** What can be told as a story: a calculation with two numbers. */
const TOLD = ['add-subtract', 'decimal', 'multiply-divide']
watch(
  () => bench.chosen,
  () => (peek.value = blanking.value = false),
)

/** Make what *key* names a blank, or bring it back. */
async function toggle(key: string): Promise<void> {
  if (!blanking.value) return
  await bench.changeExample(({ fading }) => {
    const others = fading.blanks.filter((one) => one !== key)
    return { fading: { ...fading, blanks: others.length < fading.blanks.length ? others : [...others, key] } }
  })
}
</script>

<template>
  <article class="paper" :data-example="bench.chosen" aria-label="Working">
    <template v-if="bench.working">
      <div class="edge">
        <LayoutSwitch />
        <p class="kind">
          {{ bench.working.problem.kind_name
          }}<template v-if="bench.working.problem.label">, in {{ bench.working.problem.label }}</template>
          <button v-if="TOLD.includes(bench.working.problem.kind)" class="word" @click="telling = true">
            Tell it as a story
          </button>
        </p>
        <FadingBar v-model:peek="peek" v-model:blanking="blanking" />
      </div>
      <PaperStory
        v-if="bench.working.story && !bench.beside"
        :key="bench.chosen ?? ''"
        :story="bench.working.story"
        :blanking="blanking"
        :peek="peek"
        @blank="toggle"
      />
      <PaperBeside v-if="bench.beside" />
      <PaperRow
        v-else-if="bench.working.layout === 'line' && bench.working.rows[0]"
        class="start"
        :row="bench.working.rows[0]"
        :blanking="blanking"
        :peek="peek"
        @blank="toggle"
      />
      <PaperRow
        v-if="bench.working.sheet && !bench.beside"
        class="start"
        :row="bench.working.sheet"
        :blanking="blanking"
        :peek="peek"
        @blank="toggle"
      />
      <PaperBoxes
        v-if="bench.working.boxes.length && !bench.beside"
        :working="bench.working"
        :blanking="blanking"
        :peek="peek"
        @blank="toggle"
      />
      <ol v-else-if="!bench.beside">
        <PaperStep
          v-for="(step, i) in bench.working.steps"
          :key="`${bench.chosen} ${i}`"
          :step="step"
          :row="bench.working.layout === 'line' ? bench.working.rows[i + 1] : undefined"
          :index="i"
          :last="i === bench.working.steps.length - 1"
          :mark="bench.working.marks[i]"
          :blanking="blanking"
          :peek="peek"
          @blank="toggle"
        />
      </ol>
      <p v-if="!bench.working.steps.length" class="nothing">Nothing has to be done: this is its answer already.</p>
      <AnswerMark />
      <p v-if="bench.working.story" class="answer sentence">
        <span v-if="bench.working.story.answer_hidden && !peek" class="fill"
          ><span class="sr-only">a sentence to write</span></span
        >
        <MathLine v-else :glyphs="bench.working.story.answer_glyphs" :spoken="bench.working.story.answer" />
        <button v-if="blanking" class="word" @click="toggle('sentence 0 row')">
          {{ bench.working.story.answer_hidden ? 'show it' : 'pupils write it' }}
        </button>
      </p>
      <p v-else-if="bench.working.problem.label && (peek || !bench.working.steps.at(-1)?.hidden)" class="answer">
        Answer:
        <template v-if="bench.working.answer.label_before">{{ bench.working.answer.label }}</template>
        <MathLine :glyphs="bench.working.answer.glyphs" />
        <template v-if="!bench.working.answer.label_before">{{ ' ' + bench.working.answer.label }}</template>
      </p>
    </template>
    <p v-else-if="bench.example?.unreadable" class="nothing">
      {{ bench.example.unreadable }} It is kept as it was typed; type it anew on the left to work it.
    </p>
    <p v-else-if="!bench.examples.length" class="nothing">
      The paper is empty. A problem typed on the left is worked here.
    </p>
    <TellAsStory v-model:visible="telling" />
  </article>
</template>

<style scoped>
/* Everything on the paper is a whole number of squares high, so every line of numerals sits in them. */
.paper {
  padding: 0 0 calc(2 * var(--square)) var(--square);
  min-height: 100%;
  line-height: var(--square);
  background:
    linear-gradient(var(--squares) 1px, transparent 1px) 0 -1px / var(--square) var(--square),
    linear-gradient(90deg, var(--squares) 1px, transparent 1px) -1px 0 / var(--square) var(--square);
  overflow-x: auto;
}
.edge {
  display: grid;
  grid-template-columns: calc(15 * var(--square)) minmax(0, 1fr);
  padding-bottom: var(--square);
}
.start {
  margin-bottom: var(--square);
}
.kind {
  color: var(--ink-quiet);
  font-size: 0.88rem;
  padding-right: var(--square);
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
  background: var(--paper);
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
  .edge {
    grid-template-columns: 1fr;
  }
}
</style>
