<script setup lang="ts">
import { useDebounceFn } from '@vueuse/core'
import Button from 'primevue/button'
import { computed, ref, watch } from 'vue'

import { type AboutCell, client, type AnswerEntry } from '../api/client'
import { useLatest } from '../api/useLatest'
import FigureDrawing from '../parts/FigureDrawing.vue'
import MathLine from '../parts/MathLine.vue'
import { putOnLadder } from '../ladder/putOnLadder'
import CheckedWorking from '../parts/CheckedWorking.vue'
import { dayOf } from './cells'
import OwnWord from './OwnWord.vue'
import type { SittingDesk } from './useSitting'

const props = defineProps<{
  desk: SittingDesk
  /** The pupil and the problem (from 0) of the cell in hand. */
  pupilId: string
  number: number
}>()
const about = ref<AboutCell | null>(null)
const others = ref(false)
const { latest } = useLatest()

const sitting = computed(() => props.desk.sitting.value)
const pupil = computed(() => sitting.value?.pupils.find((one) => one.id === props.pupilId))
const question = computed(() => sitting.value?.questions[props.number])
const cell = computed(() => props.desk.rows.get(props.pupilId)?.[props.number] ?? null)
const counts = computed(
  () => about.value?.explanations.filter((one) => !chosen.value || same(one.codes, chosen.value)) ?? [],
)
const chosen = computed(() => (cell.value?.word.codes?.length ? cell.value.word.codes : null))
const main = computed(() => counts.value[0] ?? null)
const rest = computed(() => about.value?.explanations.filter((one) => one !== main.value) ?? [])
const same = (a: readonly string[], b: readonly string[]) => a.join() === b.join()

async function load(): Promise<void> {
  const path = { sitting_id: sitting.value?.id ?? '', pupil_id: props.pupilId, number: props.number }
  const answer = await latest((signal) =>
    client.GET('/api/sittings/{sitting_id}/answers/{pupil_id}/{number}', { params: { path }, signal }),
  )
  if (answer?.ok) about.value = answer.data
}

// The cell in hand moves with every key; what is known of it is asked for when it rests.
const soon = useDebounceFn(load, 120)
watch(
  () => [props.pupilId, props.number, props.desk.changed.value],
  ([who, at], before) => {
    if (!before || who !== before[0] || at !== before[1]) {
      about.value = null
      others.value = false
    }
    void soon()
  },
  { immediate: true },
)

/** The problem that would tell two apart, put on the ladder of the set. */
const added = ref('')
async function add(text: string): Promise<void> {
  const refusal = await putOnLadder(sitting.value?.set_id ?? '', [text])
  added.value = refusal ? '' : text
}

/** The explanation that counts, by the teacher's word. */
function take(codes: readonly string[]): void {
  const own = cell.value
  if (!own) return
  const entry: AnswerEntry = { pupil_id: props.pupilId, number: props.number, written: own.written, gone: false }
  props.desk.enter([{ ...entry, word: { ...own.word, right: null, codes: [...codes] } }])
}
</script>

<template>
  <aside class="margin on-paper" aria-label="The answer in hand">
    <template v-if="pupil && question && sitting">
      <h2>{{ pupil.alias }}, <MathLine :glyphs="question.glyphs" :spoken="question.spoken" /></h2>
      <p v-if="!cell" class="quiet">Nothing is entered here yet.</p>
      <template v-else>
        <p v-if="cell.glyphs.length" class="answer" :data-said="cell.said">
          <MathLine :glyphs="cell.glyphs" :spoken="cell.written ?? ''" />
          <span class="is">{{
            cell.name || { right: 'right', blank: 'blank', away: 'away' }[cell.said as 'right']
          }}</span>
        </p>
        <p v-else class="answer">{{ cell.name }}</p>
        <p v-if="about?.form_text" class="quiet">{{ about.form_text }}</p>
        <CheckedWorking v-if="about?.checked" :checked="about.checked" />
        <template v-if="main && cell.said !== 'right'">
          <p v-for="(glyphs, i) in main.line_glyphs" :key="i" class="wrong"><MathLine :glyphs="glyphs" /></p>
          <p class="quiet">{{ main.reason }}</p>
          <p class="ask">Ask: “{{ main.question }}”</p>
        </template>
        <p v-if="about && cell.said !== 'right'" class="quiet">Right is <MathLine :glyphs="about.answer" />.</p>
        <FigureDrawing v-if="about?.figure" class="seen" :figure="about.figure" />
        <template v-if="rest.length">
          <Button class="word also" :aria-expanded="others" @click="others = !others">
            Also fits: {{ rest.length === 1 ? 'one more way' : `${rest.length} more ways` }}
          </Button>
          <ul v-if="others" class="others">
            <li v-for="one in rest" :key="one.codes.join()">
              {{ one.names.join(', then ') }}
              <Button class="word" @click="take(one.codes)">It was this</Button>
            </li>
          </ul>
        </template>
        <p v-else-if="cell.said === 'explained' && about && !chosen" class="quiet">Also fits: nothing else here.</p>
      </template>

      <section v-if="about">
        <h3>Over all {{ pupil.alias }}’s answers</h3>
        <div v-for="one in about.holds" :key="one.code" class="held">
          <p>
            {{ one.name }} <strong>{{ one.word }}</strong>
          </p>
          <p class="quiet">
            <span class="dots" aria-hidden="true">{{ one.seen.map((shown) => (shown ? '●' : '○')).join(' ') }}</span>
            {{ one.shown }} of {{ one.chances }} chances · {{ Math.round(100 * one.belief) }} %
          </p>
        </div>
        <p v-if="!about.holds.length" class="quiet">Nothing stands out.</p>
        <p v-for="one in about.no_longer" :key="one.code" class="quiet">
          No longer: {{ one.name }}. Last seen {{ dayOf(one.last) }}, {{ one.chances }} chances since.
        </p>
        <p v-for="pair in about.cannot_tell" :key="pair.join()" class="quiet">
          Cannot be told apart so far: {{ pair.join(' and ') }}.
          <template v-if="about.telling.text"
            >This would: <MathLine :glyphs="about.telling.glyphs" />
            <Button v-if="sitting.set_id && added !== about.telling.text" class="word" @click="add(about.telling.text)">
              Put it on the ladder
            </Button>
            <span v-else-if="added" role="status">It is on the ladder.</span></template
          >
        </p>
      </section>

      <section v-if="about?.class_on_it.length">
        <h3>The class on this problem</h3>
        <p>
          <template v-for="(one, i) in about.class_on_it" :key="one.name"
            >{{ i ? ' · ' : '' }}<strong>{{ one.pupils }}</strong> {{ one.name }}</template
          >
        </p>
      </section>

      <OwnWord v-if="cell && about" :desk="desk" :cell="cell" :points="about.points" :most="question.points" />
      <RouterLink class="word page" :to="{ name: 'pupil', params: { classId: sitting.class_id, pupilId: pupil.id } }"
        >{{ pupil.alias }}’s page</RouterLink
      >
    </template>
  </aside>
</template>

<style scoped>
.margin {
  background: var(--paper);
  color: var(--ink);
  border-radius: 3px;
  padding: 20px 22px 26px;
  display: grid;
  gap: 8px;
  align-content: start;
  overflow: auto;
  max-height: calc(100vh - 62px);
}
h2 {
  font-size: 1.2rem;
}
h3 {
  font-size: 1.02rem;
  padding: 8px 0 2px;
}
section {
  border-top: 1px solid var(--hair);
  margin-top: 4px;
}
.answer {
  font-size: 1.25rem;
}
.is {
  font-size: 0.98rem;
  margin-left: 0.6em;
}
.answer[data-said='explained'],
.wrong {
  color: var(--role-wrong);
}
.quiet {
  color: var(--ink-quiet);
  font-size: 0.92rem;
}
.ask {
  font-weight: 700;
}
.dots {
  letter-spacing: 0.05em;
  color: var(--ink);
  margin-right: 0.4em;
}
.seen {
  height: auto;
  max-width: 100%;
}
.also,
.page {
  justify-self: start;
  padding-left: 0;
  text-decoration-color: currentColor;
}
.others {
  font-size: 0.95rem;
  display: grid;
  gap: 4px;
}
.others .word {
  text-decoration-color: currentColor;
}
@media (max-width: 960px) {
  .margin {
    max-height: none;
  }
}
</style>
