<script setup lang="ts">
import Button from 'primevue/button'
import Textarea from 'primevue/textarea'
import { computed, ref, watch } from 'vue'

import { ask, type Checked, client, type Refusal, type Verdict, type Working } from '../api/client'
import CheckedWorking from '../parts/CheckedWorking.vue'
import MathLine from '../parts/MathLine.vue'
import { useBench } from '../stores/bench'
import { usePaper } from '../stores/paper'

const props = defineProps<{ working: Working }>()
const bench = useBench()
const paper = usePaper()
const typed = ref('')
const verdict = ref<Verdict | null>(null)
const checked = ref<Checked | null>(null)
const refusal = ref<Refusal | null>(null)

const SAID: Record<Verdict['verdict'], string> = {
  right: 'Right.',
  'right-value': 'The value is right.',
  explained: 'This is how it may have come about.',
  unexplained: 'No way known here leads to it.',
  unreadable: 'This is not one written number.',
}
const lines = computed(() =>
  typed.value
    .split('\n')
    .map((line) => line.trim())
    .filter(Boolean),
)

/** What is worked: a story with its calculation. */
const asked = () => props.working.story?.source ?? props.working.problem.text

async function see(): Promise<void> {
  clear()
  const text = asked()
  const ways = props.working.methods
  if (lines.value.length === 1) {
    const target = (paper.example?.target ?? null) as 'improper' | 'mixed' | 'fraction' | 'decimal' | null
    const answer = await ask(
      client.POST('/api/diagnose', {
        body: { text, ways, target, answer: lines.value[0] ?? '', set_id: bench.set?.id ?? null },
      }),
    )
    if (text !== asked()) return // another example was chosen meanwhile
    if (answer.ok) verdict.value = answer.data
    else refusal.value = answer.refusal
  } else if (lines.value.length) {
    const answer = await ask(client.POST('/api/check', { body: { text, ways, lines: lines.value } }))
    if (text !== asked()) return
    if (answer.ok) checked.value = answer.data
    else refusal.value = answer.refusal
  }
}

function clear(): void {
  verdict.value = null
  checked.value = null
  refusal.value = null
}

watch(
  () => props.working.problem.text,
  () => {
    typed.value = ''
    clear()
  },
)
</script>

<template>
  <section aria-labelledby="happened-heading">
    <h2 id="happened-heading">What happened here?</h2>
    <label for="pupil-wrote">What a pupil wrote: an answer, or a working, a line each</label>
    <Textarea
      id="pupil-wrote"
      v-model="typed"
      rows="2"
      auto-resize
      spellcheck="false"
      @input="clear"
      @keydown.ctrl.enter="see"
    />
    <Button class="word" :disabled="!lines.length" @click="see">See what happened</Button>
    <div aria-live="polite" class="found">
      <p v-if="refusal" class="wrong">{{ refusal.message }} {{ refusal.hint }}</p>
      <template v-if="verdict">
        <p class="verdict" :data-verdict="verdict.verdict">{{ SAID[verdict.verdict] }} {{ verdict.form_text }}</p>
        <ol v-if="verdict.explanations.length">
          <li v-for="one in verdict.explanations" :key="one.codes.join()">
            <strong>{{ one.names.join(', then ') }}</strong>
            <p v-for="(glyphs, i) in one.line_glyphs" :key="i" class="wrong"><MathLine :glyphs="glyphs" /></p>
            <p>{{ one.reason }}</p>
            <p class="ask">Ask: {{ one.question }}</p>
          </li>
        </ol>
      </template>
      <CheckedWorking v-if="checked" :checked="checked" />
    </div>
  </section>
</template>

<style scoped>
label {
  display: block;
  font-size: 0.9rem;
  color: var(--ink-quiet);
  padding-bottom: 4px;
}
textarea {
  width: 100%;
  font: inherit;
  font-size: 1.05rem;
  background: var(--field);
  color: var(--ink);
  border: 1px solid var(--field-edge);
  border-radius: 2px;
  padding: 4px 8px;
}
.word {
  padding: 4px 0;
  text-decoration: underline;
  text-underline-offset: 3px;
}
.found {
  display: grid;
  gap: 8px;
}
.verdict {
  font-weight: 700;
}
.wrong {
  color: var(--role-wrong);
}
.ask {
  font-weight: 700;
}
ol {
  display: grid;
  gap: 10px;
}
</style>
