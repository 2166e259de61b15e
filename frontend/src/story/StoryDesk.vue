<script setup lang="ts">
import Button from 'primevue/button'
import Dialog from 'primevue/dialog'
import InputText from 'primevue/inputtext'
import Select from 'primevue/select'
import Textarea from 'primevue/textarea'
import { computed, nextTick, ref, watch } from 'vue'

import { ask, client, type Refusal, type Story, type StoryChoices } from '../api/client'
import limits from '../parts/limits.json'
import MathLine from '../parts/MathLine.vue'
import { useBench } from '../stores/bench'
import { usePaper } from '../stores/paper'
import StoryModel from './StoryModel.vue'
import StoryReadings from './StoryReadings.vue'
import { useStoryReading } from './useStoryReading'

/** Where a story is written, read and corrected: a new one, or the one on the paper. */
const visible = defineModel<boolean>('visible', { required: true })
const props = defineProps<{
  /** What was typed so far, where a new one begins. */
  typed?: string
  /** The story that is changed; none for a new one. */
  known?: Story | null
}>()
const emit = defineEmits<{ added: []; left: [text: string] }>()

const bench = useBench()
const paper = usePaper()
const field = ref<{ $el: HTMLTextAreaElement } | null>(null)
const choices = ref<StoryChoices | null>(null)
const refused = ref<Refusal | null>(null)
const busy = ref(false)
const { text, parts, corrected, read, story, refusal, certain, source, begin, take, correct, readAnew } =
  useStoryReading(() => ({ ...bench.set?.house, ...bench.set?.ways, ...(props.known ? paper.example?.ways : {}) }))

watch(
  visible,
  async (shown) => {
    if (!shown) return
    refused.value = null
    begin(props.typed ?? '', props.known ?? null)
    if (choices.value) return
    const answer = await ask(client.GET('/api/stories'))
    if (answer.ok) choices.value = answer.data
  },
  { immediate: true },
)

/** The field takes over where the entry line was left. */
async function focus(): Promise<void> {
  await nextTick()
  const element = field.value?.$el
  element?.focus()
  element?.setSelectionRange(element.value.length, element.value.length)
}

/** The text speaks for itself again; the button that said so is gone, so the field has the keys. */
function again(): void {
  readAnew()
  void focus()
}

// What is typed while the dialog opens goes on in it.
watch(
  () => props.typed ?? '',
  (now) => {
    if (visible.value && !props.known && now.startsWith(text.value)) text.value = now
  },
)

const situations = computed(() => choices.value?.situations ?? [])
const unknowns = computed(() => situations.value.find((one) => one.code === parts.situation)?.unknowns ?? [])

function chooseSituation(code: string): void {
  const first = situations.value.find((one) => one.code === code)?.unknowns[0]
  correct({ situation: code, unknown: first?.code ?? 'answer' })
}

/** A number of the text is needed, or is not. */
function toggle(number: string): void {
  const others = parts.unneeded.filter((one) => one !== number)
  correct({ unneeded: others.length < parts.unneeded.length ? others : [...others, number] })
}

const NEAR = 6 // words shown before and after a place
const wordsOf = (part: string): string[] => part.match(/\s*\S+\s*/g) ?? []

/** The text with the place that is refused between a few words before and after it. */
const place = computed(() => {
  const { position = 0, length = 0 } = refusal.value ?? {}
  const whole = source.value
  if (!length || length >= whole.length || position >= whole.length) return null
  const before = wordsOf(whole.slice(0, position))
  const after = wordsOf(whole.slice(position + length))
  return [
    (before.length > NEAR ? '… ' : '') + before.slice(-NEAR).join(''),
    whole.slice(position, position + length),
    after.slice(0, NEAR).join('') + (after.length > NEAR ? '…' : ''),
  ]
})

async function add(): Promise<void> {
  if (busy.value || !story.value || !certain.value) return
  busy.value = true
  const kept = story.value.source
  if (props.known) {
    if (await paper.changeExample({ source: kept })) visible.value = false
  } else {
    refused.value = await bench.add(kept)
    if (!refused.value && bench.saving === 'saved') {
      visible.value = false
      emit('added')
    }
  }
  busy.value = false
}

function leave(): void {
  visible.value = false
  emit('left', text.value)
}
</script>

<template>
  <Dialog
    v-model:visible="visible"
    modal
    :header="known ? 'Change the story' : 'A story'"
    :closable="false"
    @show="focus"
    @keydown.ctrl.enter="add"
  >
    <div class="desk on-paper">
      <div class="left">
        <label for="story-text">The story, with its question at the end</label>
        <Textarea
          id="story-text"
          ref="field"
          v-model="text"
          rows="5"
          auto-resize
          spellcheck="true"
          :maxlength="limits.story"
          placeholder="A plank is 3 1/4 m long. Alder saws 1 2/3 m off. How long is what is left?"
        />
        <ul v-if="read?.numbers.length" class="chips" aria-label="The numbers that were found">
          <li v-for="(one, i) in read.numbers" :key="i">
            <Button
              class="chip"
              :aria-pressed="!parts.unneeded.includes(one.number)"
              :title="
                parts.unneeded.includes(one.number) ? 'Not needed: press to use it' : 'Used: press if it is not needed'
              "
              @click="toggle(one.number)"
            >
              <MathLine
                v-if="story?.quantities[i]"
                :glyphs="story.quantities[i]!.glyphs"
                :spoken="one.number"
              /><template v-else>{{ one.number }}</template>
              <span v-if="one.unit" class="unit">{{ one.unit }}</span>
              <small v-if="parts.unneeded.includes(one.number)">not needed</small>
              <small v-else-if="one.unit && !one.known">counted</small>
            </Button>
          </li>
        </ul>
        <p v-if="refused || refusal" class="refusal" role="alert">
          <span v-if="place && !refused" class="place" aria-hidden="true"
            >{{ place[0] }}<mark>{{ place[1] }}</mark
            >{{ place[2] }}</span
          >
          {{ (refused ?? refusal)?.message }} {{ (refused ?? refusal)?.hint }}
          <Button v-if="corrected" class="word" @click="again">Read the text anew</Button>
        </p>
      </div>
      <div class="right">
        <div class="pair">
          <label for="story-situation">What happens</label>
          <Select
            :model-value="parts.situation"
            input-id="story-situation"
            :options="situations"
            option-label="name"
            option-value="code"
            @update:model-value="chooseSituation"
          />
          <label for="story-unknown">To be found</label>
          <Select
            :model-value="parts.unknown"
            input-id="story-unknown"
            :options="unknowns"
            option-label="name"
            option-value="code"
            @update:model-value="correct({ unknown: $event })"
          />
          <label for="story-calculation">Calculation</label>
          <InputText
            id="story-calculation"
            :model-value="parts.calculation"
            spellcheck="false"
            autocomplete="off"
            placeholder="3 1/4 - 1 2/3, or all = 1 1/4 + 2/3; 8 - all"
            @update:model-value="correct({ calculation: $event ?? '' })"
          />
          <label for="story-says">Answer sentence</label>
          <InputText
            id="story-says"
            :model-value="parts.says"
            autocomplete="off"
            placeholder="What is left is _ long."
            @update:model-value="correct({ says: $event ?? '' })"
          />
        </div>
        <template v-if="story && certain">
          <div v-for="part in story.calculations" :key="part.told" class="part">
            <p>
              <span class="finds">{{ part.finds }}</span> <MathLine :glyphs="part.glyphs" /> =
              <MathLine :glyphs="part.result" />
            </p>
            <StoryModel v-if="part.model" :figure="part.model" />
          </div>
          <p v-if="story.untold.length" class="quiet">
            <span v-for="one in story.untold" :key="one.number">{{ one.number }}: {{ one.name }}. </span>
          </p>
          <p class="answer"><MathLine :glyphs="story.answer_glyphs" :spoken="story.answer" /></p>
        </template>
        <p v-else-if="!story" class="quiet">
          The calculation, its model and the answer appear here as the story is understood.
        </p>
      </div>
      <StoryReadings
        v-if="read && !certain && story && !refused && !refusal"
        :doubt="read.doubts[0]?.message"
        :readings="read.readings"
        @chosen="take"
      />
      <p class="ways">
        <Button :label="known ? 'Take it' : 'Put it on the ladder'" :disabled="!certain || busy" @click="add" />
        <Button label="Leave it" variant="outlined" @click="leave" />
        <span class="quiet">Ctrl+Enter takes it.</span>
      </p>
    </div>
  </Dialog>
</template>

<style scoped>
.desk {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 1rem 2rem;
  width: min(66rem, 86vw);
}
label {
  display: inline-block;
  padding-bottom: 6px;
  font-size: 0.9rem;
  color: var(--ink-quiet);
}
textarea {
  width: 100%;
  font: inherit;
  font-size: 1.2rem;
  line-height: 1.5;
  color: var(--ink);
  background: var(--field);
  border: 1px solid var(--field-edge);
  border-radius: 2px;
  padding: 6px 10px;
}
.chips {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  padding-top: 10px;
}
.chip {
  display: inline-flex;
  align-items: center;
  gap: 0.35em;
  min-height: 2.4rem;
  border: 1.5px solid var(--ink);
  border-radius: 4px;
  background: var(--field);
  color: var(--ink);
  padding: 0 0.6em;
  font-size: 1.1rem;
  cursor: pointer;
}
.chip[aria-pressed='false'] {
  border-style: dashed;
  color: var(--ink-quiet);
}
.chip small {
  color: var(--ink-quiet);
  font-size: 0.82rem;
}
.refusal {
  color: var(--role-wrong);
  padding-top: 10px;
}
.place {
  display: block;
  color: var(--ink);
}
mark {
  background: none;
  color: inherit;
  text-decoration: underline wavy var(--role-wrong) 2px;
  text-underline-offset: 4px;
}
.pair {
  display: grid;
  grid-template-columns: auto minmax(0, 1fr);
  gap: 6px 10px;
  align-items: center;
}
.part {
  padding-top: 12px;
  font-size: 1.15rem;
}
.finds {
  font-size: 0.9rem;
  color: var(--ink-quiet);
  padding-right: 0.4em;
}
.answer {
  padding-top: 10px;
  font-size: 1.15rem;
  font-weight: 700;
}
.quiet {
  color: var(--ink-quiet);
  font-size: 0.92rem;
  padding-top: 8px;
}
.ways {
  grid-column: 1 / -1;
  display: flex;
  gap: 0.8rem;
  align-items: center;
}
.word {
  text-decoration: underline;
  color: var(--ink);
}
@media (max-width: 760px) {
  .desk {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
