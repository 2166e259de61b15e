<script setup lang="ts">
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import Select from 'primevue/select'
import SelectButton from 'primevue/selectbutton'
import { computed, onMounted, ref } from 'vue'
import { useRouter } from 'vue-router'

import { ask, client, type Refusal, type Schemas, type StoryChoices, type ToldStory } from '../api/client'
import { useLatest } from '../api/useLatest'
import MathLine from '../parts/MathLine.vue'
import { putOnLadder } from '../ladder/putOnLadder'
import { scenarioOptions } from '../story/scenarioOptions'
import StoryText from '../story/StoryText.vue'
import PageHead from '../parts/PageHead.vue'

/** Stories made to order: rungs, situations, a scenario, and what is calculated. */
const props = defineProps<{ setId: string }>()
const router = useRouter()
const choices = ref<StoryChoices | null>(null)
const counts = ref<Record<string, number>>({ S1: 2, S2: 1, S3: 1, S4: 1, S5: 1, S6: 0 })
const scenario = ref('any')
const situations = ref<string[]>([])
const calculations = ref<string[]>(['F4', 'F5', 'M3', 'M5', 'M7', 'M8'])
const denominators = ref<number[]>([2, 3, 4, 5, 6, 8, 10, 12])
const largestWhole = ref('12')
const seed = ref(Math.floor(Math.random() * 2 ** 30))
const made = ref<Schemas['MadeOut'] | null>(null)
const kept = ref<boolean[]>([])
const shunned = ref<string[]>([])
const refusal = ref<Refusal | null>(null)
const busy = ref(false)
const { latest } = useLatest()

const COUNTS = [0, 1, 2, 3, 4, 5, 6, 8, 10].map((count) => ({ label: String(count), value: count }))
const DENOMINATORS = [2, 3, 4, 5, 6, 7, 8, 9, 10, 12, 15, 16, 20]
const total = computed(() => Object.values(counts.value).reduce((sum, count) => sum + count, 0))
const scenarios = computed(() => [{ code: 'any', name: 'anywhere' }, ...scenarioOptions(choices.value)])

function spec(): Record<string, unknown> {
  return {
    rungs: counts.value,
    scenario: scenario.value === 'any' ? null : scenario.value,
    situations: situations.value.length ? situations.value : null,
    calculations: calculations.value.length ? calculations.value : null,
    denominators: denominators.value,
    largest_whole: Math.max(0, Math.min(999, Math.round(Number(largestWhole.value)) || 0)),
    seed: seed.value,
  }
}

async function make(stay: (string | null)[] = []): Promise<void> {
  busy.value = true
  const body = { spec: spec(), set_id: props.setId, kept: stay, shunned: shunned.value }
  const answer = await latest((signal) => client.POST('/api/stories/make', { body, signal }))
  if (!answer) return
  busy.value = false
  refusal.value = answer.ok ? null : answer.refusal
  if (!answer.ok) return
  made.value = answer.data
  kept.value = answer.data.stories.map((_, i) => !!stay[i] && (kept.value[i] ?? false))
}

const sources = () => (made.value?.stories ?? []).map((one) => one.story.source)

async function another(): Promise<void> {
  seed.value = Math.floor(Math.random() * 2 ** 30)
  await make(sources().map((source, i) => (kept.value[i] ? source : null)))
}

/** Another story in the place of one, the others staying. */
async function swap(at: number): Promise<void> {
  const now = made.value?.stories ?? []
  shunned.value.push(now[at]?.story.text ?? '')
  seed.value += 1
  await make(now.map((one, i) => (i === at ? null : one.story.source)))
}

async function take(stories: ToldStory[]): Promise<void> {
  const sources = stories.map((one) => one.story.source)
  refusal.value = await putOnLadder(props.setId, sources)
  if (!refusal.value) await router.push({ name: 'bench', params: { setId: props.setId } })
}

onMounted(async () => {
  document.title = 'Stories to order · Keen Slate'
  const answer = await ask(client.GET('/api/stories'))
  if (answer.ok) choices.value = answer.data
  else refusal.value = answer.refusal
})
</script>

<template>
  <main class="order">
    <PageHead title="Stories to order" :back="{ to: { name: 'bench', params: { setId } }, name: 'Bench' }">
      <RouterLink class="word" :to="{ name: 'scenarios' }">Scenarios</RouterLink>
    </PageHead>
    <div v-if="choices" class="desk">
      <form class="wish" @submit.prevent="make()">
        <h2>How many of each</h2>
        <p v-for="rung in choices.rungs" :key="rung.code" class="rung">
          <label :for="`count-${rung.code}`"
            ><strong>{{ rung.code }}</strong> {{ rung.name }}</label
          >
          <Select
            v-model="counts[rung.code]"
            :input-id="`count-${rung.code}`"
            :options="COUNTS"
            option-label="label"
            option-value="value"
          />
        </p>
        <h2><label for="scenario">Where they play</label></h2>
        <Select v-model="scenario" input-id="scenario" :options="scenarios" option-label="name" option-value="code" />
        <h2 id="situations">What happens (none chosen: anything)</h2>
        <SelectButton
          v-model="situations"
          multiple
          :options="choices.situations.filter((one) => one.code !== 'steps')"
          option-label="name"
          option-value="code"
          aria-labelledby="situations"
        />
        <h2 id="calculations">What is calculated</h2>
        <SelectButton
          v-model="calculations"
          multiple
          :options="choices.calculations"
          option-label="code"
          option-value="code"
          aria-labelledby="calculations"
        >
          <template #option="{ option }"
            ><span :title="option.name">{{ option.code }}</span></template
          >
        </SelectButton>
        <h2 id="denominators">Denominators</h2>
        <SelectButton v-model="denominators" multiple :options="DENOMINATORS" aria-labelledby="denominators" />
        <p class="rung">
          <label for="largest">Wholes up to</label>
          <InputText id="largest" v-model="largestWhole" class="short" inputmode="numeric" autocomplete="off" />
        </p>
      </form>
      <section class="sheet on-paper" aria-label="The stories">
        <p class="acts">
          <Button
            :label="`Make ${total || ''} ${total === 1 ? 'story' : 'stories'}`"
            :disabled="!total || busy"
            @click="make()"
          />
          <span v-if="busy" class="quiet" role="status">Telling them …</span>
        </p>
        <p v-if="refusal" class="refusal" role="alert">{{ refusal.message }} {{ refusal.hint }}</p>
        <p v-if="made?.impossible" class="refusal" role="status">
          {{ made.impossible.said }}
          <template v-if="made.impossible.nearest !== null"
            >The nearest that works: {{ [made.impossible.nearest].flat().join(', ') || 'none' }}.</template
          >
        </p>
        <p v-if="!made" class="quiet">
          The numbers come from the same search as a ladder's. Each story is worked and checked before you see it.
        </p>
        <ol>
          <li v-for="(one, i) in made?.stories ?? []" :key="one.story.source">
            <p class="about">
              <strong>{{ one.rung }}</strong> {{ one.story.situation_name }}, {{ one.story.unknown_name }} is to be
              found ·
              {{ one.story.calculations.map((part) => part.rung).join(', ') }}
              <Button class="word" :aria-pressed="kept[i]" @click="kept[i] = !kept[i]">
                {{ kept[i] ? 'Kept' : 'Keep' }}
              </Button>
              <Button class="word" :disabled="kept[i] || busy" @click="swap(i)">Swap</Button>
            </p>
            <StoryText :story="one.story" />
            <p class="quiet"><MathLine :glyphs="one.story.answer_glyphs" :spoken="one.story.answer" /></p>
          </li>
        </ol>
        <p v-if="made?.stories.length" class="acts">
          <Button label="Put them on the ladder" @click="take(made.stories)" />
          <Button
            :label="kept.some(Boolean) ? 'Tell the rest anew' : 'Others'"
            variant="outlined"
            :disabled="busy"
            @click="another"
          />
        </p>
      </section>
    </div>
    <p v-else-if="refusal" role="alert">{{ refusal.message }} {{ refusal.hint }}</p>
  </main>
</template>

<style scoped src="../styles/order.css"></style>
<style scoped>
h2 {
  font-size: 1rem;
  padding-top: 6px;
}
.wish {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 8px;
}
.wish :deep(.p-selectbutton) {
  flex-wrap: wrap;
  gap: 4px;
}
.wish :deep(.p-selectbutton .p-togglebutton) {
  border-width: 1px;
  border-radius: 3px;
}
.rung label {
  line-height: 1.3;
}
.rung {
  display: flex;
  gap: 12px;
  align-items: center;
  justify-content: space-between;
}
.short {
  width: 5rem;
}
li {
  border-top: 1px solid var(--hair);
  padding: 8px 0 12px;
  font-size: 1.15rem;
  line-height: 1.7;
}
.about {
  font-size: 0.9rem;
  color: var(--ink-quiet);
}
.about .word {
  text-decoration: underline;
  text-underline-offset: 4px;
  padding: 2px 4px;
}
.word[aria-pressed='true'] {
  font-weight: 700;
}
.refusal {
  padding-bottom: 8px;
}
</style>
