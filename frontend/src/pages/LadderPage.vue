<script setup lang="ts">
import { computed, onMounted, ref, watch } from 'vue'
import { useRouter } from 'vue-router'

import {
  ask,
  type Choices,
  client,
  type Counts,
  type Ladder,
  type LadderProblem,
  type Refusal,
  type Schemas,
} from '../api/client'
import { useLatest } from '../api/useLatest'
import LadderLimits from '../ladder/LadderLimits.vue'
import LadderProblems from '../ladder/LadderProblems.vue'
import LadderRungs from '../ladder/LadderRungs.vue'
import { putOnLadder } from '../ladder/putOnLadder'
import LadderTargets from '../ladder/LadderTargets.vue'
import { emptyWish, type Operation, type Wish, wishAsSpec } from '../ladder/wish'

const props = defineProps<{ setId: string }>()
const router = useRouter()
const choices = ref<Choices | null>(null)
const wish = ref<Wish>(emptyWish())
const counts = ref<Counts | null>(null)
const ladder = ref<Ladder | null>(null)
const smallest = ref<Schemas['SmallestOut'] | null>(null)
const locked = ref<boolean[]>([])
const shunned = ref<string[]>([])
const refusal = ref<Refusal | null>(null)
const busy = ref(false)
const total = computed(() => Object.values(wish.value.rungs).reduce((sum, count) => sum + count, 0))
const body = () => ({ spec: wishAsSpec(wish.value), set_id: props.setId })

// The count follows every change.
const [counting, building] = [useLatest(), useLatest()]
let waiting: ReturnType<typeof setTimeout> | undefined
watch(
  wish,
  () => {
    clearTimeout(waiting)
    waiting = setTimeout(count, 120)
  },
  { deep: true },
)

async function count(): Promise<void> {
  counting.drop()
  if (!total.value) return void (counts.value = null)
  const answer = await counting.latest((signal) => client.POST('/api/ladders/count', { body: body(), signal }))
  if (!answer) return
  counts.value = answer.ok ? answer.data : null
  refusal.value = answer.ok ? null : answer.refusal
}

/** So many problems from one rung to another. */
async function span(from: string, to: string, steps: number): Promise<void> {
  const answer = await ask(
    client.POST('/api/ladders/count', { body: { spec: { from, to, steps }, set_id: props.setId } }),
  )
  if (answer.ok) wish.value.rungs = answer.data.rungs
  else refusal.value = answer.refusal
}

async function build(kept: (string | null)[] = []): Promise<void> {
  busy.value = true
  const wanted = { ...body(), kept, shunned: shunned.value }
  const answer = await building.latest((signal) => client.POST('/api/ladders', { body: wanted, signal }))
  if (!answer) return
  busy.value = false
  refusal.value = answer.ok ? null : answer.refusal
  if (!answer.ok) return
  ladder.value = answer.data
  smallest.value = null
  locked.value = answer.data.problems.map((_, i) => !!kept[i] && (locked.value[i] ?? false))
}

async function another(): Promise<void> {
  wish.value.seed = Math.floor(Math.random() * 2 ** 30)
  shunned.value = []
  await build(texts().map((text, i) => (locked.value[i] ? text : null)))
}

/** The next best in the place of one, the others staying. */
async function swap(at: number): Promise<void> {
  const now = texts()
  shunned.value.push(now[at] ?? '')
  await build(now.map((text, i) => (i === at ? null : text)))
}

const texts = () => (ladder.value?.problems ?? []).map((problem: LadderProblem) => problem.text)

/** Give the wish the nearest value that allows a ladder. */
async function takeNearest(): Promise<void> {
  const { limit, nearest } = ladder.value?.impossible ?? {}
  if (limit === 'rungs') wish.value.rungs = (nearest ?? {}) as Record<string, number>
  if (limit === 'answer_below') wish.value.answerBelow = String(nearest)
  if (limit === 'denominators') wish.value.denominators = nearest as number[]
  if (limit === 'largest_common_denominator') wish.value.largestCommon = nearest as number
  if (limit === 'largest_whole') wish.value.largestWhole = nearest as number
  if (limit === 'lowest_terms') wish.value.lowestTerms = nearest as boolean
  if (limit === 'operations') wish.value.operations = nearest as Operation[]
  if (limit === 'places') wish.value.places = nearest as number[]
  if (limit === 'avoid') wish.value.avoid = nearest as string[]
  if (limit === 'targets') wish.value.targets = nearest as string[]
  await build()
}

async function fewest(): Promise<void> {
  busy.value = true
  const wanted = { codes: wish.value.targets, set_id: props.setId }
  const answer = await building.latest((signal) => client.POST('/api/ladders/smallest', { body: wanted, signal }))
  if (!answer) return
  busy.value = false
  refusal.value = answer.ok ? null : answer.refusal
  if (!answer.ok) return
  smallest.value = answer.data
  ladder.value = null
}

async function take(taken: LadderProblem[]): Promise<void> {
  const texts = taken.map((one) => one.text)
  const targets = taken.map((one) => one.target)
  refusal.value = await putOnLadder(props.setId, texts, targets)
  if (!refusal.value) await router.push({ name: 'bench', params: { setId: props.setId } })
}

onMounted(async () => {
  document.title = 'Build to order · Keen Slate'
  const answer = await ask(client.GET('/api/ladders'))
  if (answer.ok) choices.value = answer.data
  else refusal.value = answer.refusal
  await count()
})
</script>

<template>
  <main class="order">
    <header class="head">
      <p class="name">Keen Slate</p>
      <RouterLink class="word" :to="{ name: 'bench', params: { setId } }">Back to the Bench</RouterLink>
      <h1>A ladder built to order</h1>
    </header>
    <div v-if="choices" class="desk">
      <form class="wish" @submit.prevent="build()">
        <LadderRungs v-model="wish.rungs" :rungs="choices.rungs" :counts="counts" @span="span" />
        <LadderLimits v-model="wish" :choices="choices" />
        <LadderTargets v-model="wish" :targets="choices.targets" />
      </form>
      <section class="sheet on-paper" aria-label="The ladder">
        <p class="count" role="status">
          <template v-if="counts">
            {{ counts.exact ? '' : 'At most '
            }}<strong>{{
              Object.values(counts.counts)
                .reduce((sum, n) => sum + n, 0)
                .toLocaleString('en')
            }}</strong>
            problems satisfy the limits, of {{ counts.considered.toLocaleString('en') }} looked at<template
              v-if="counts.sampled"
              >; there are more than could be looked at</template
            ><template v-if="counts.ended_early">; some rungs take too long to count</template>.
          </template>
          <template v-else>Choose rungs on the left: how many problems of each.</template>
        </p>
        <p class="acts">
          <button class="do" :disabled="!total || busy" @click="build()">
            Build {{ total || '' }} {{ total === 1 ? 'problem' : 'problems' }}
          </button>
          <button v-if="wish.targets.length" class="word" :disabled="busy" @click="fewest">
            The fewest that show and separate {{ wish.targets.length === 1 ? 'it' : 'them' }}
          </button>
        </p>
        <p v-if="refusal" class="refusal" role="alert">{{ refusal.message }} {{ refusal.hint }}</p>
        <div v-if="ladder?.impossible" class="impossible" role="status">
          <p>{{ ladder.impossible.said }} No ladder fulfils this wish.</p>
          <p v-if="ladder.impossible.nearest !== null">
            The nearest that does:
            {{
              {
                answer_below: 'answers below',
                denominators: 'denominators',
                largest_common_denominator: 'a common denominator up to',
                largest_whole: 'wholes up to',
                avoid: 'avoid only',
                operations: 'operations',
                places: 'places after the point',
                lowest_terms: 'terms in lowest terms',
                targets: 'reveal only',
                rungs: 'fewer problems',
              }[ladder.impossible.limit]
            }}
            {{
              ladder.impossible.limit === 'rungs'
                ? Object.entries(ladder.impossible.nearest as object)
                    .map(([rung, n]) => `${n} on ${rung}`)
                    .join(', ')
                : ([ladder.impossible.nearest].flat().join(', ') || 'none').replace('false', 'not asked for')
            }}.
            <button class="word" @click="takeNearest">Take that</button>
          </p>
        </div>
        <p v-if="ladder?.ended_early || ladder?.impossible?.ended_early" class="quiet" role="status">
          {{
            ladder.impossible
              ? 'Which limit rules it out was not found in ten seconds.'
              : 'After ten seconds the search was ended: these are the best problems by then.'
          }}
          <template v-if="ladder.not_revealed.length">
            Not shown yet:
            {{
              ladder.not_revealed
                .map((code) => choices?.targets.find((one) => one.code === code)?.name ?? code)
                .join('; ')
            }}.
          </template>
        </p>
        <LadderProblems
          v-if="ladder && !ladder.impossible"
          v-model:locked="locked"
          :problems="ladder.problems"
          :targets="choices.targets"
          :not-separated="ladder.not_separated"
          @swap="swap"
          @take="take(ladder.problems)"
          @another="another"
        />
        <template v-if="smallest">
          <LadderProblems
            :problems="smallest.problems"
            :targets="choices.targets"
            :not-separated="smallest.not_separated"
            @take="take(smallest.problems)"
          />
          <p class="quiet">
            {{
              smallest.proven
                ? 'No fewer problems of two terms show and separate them: proven.'
                : 'Whether fewer would do was not proven.'
            }}
            <template v-if="smallest.ended_early">After ten seconds the search was ended. </template
            >{{ smallest.candidates.toLocaleString('en') }} problems were worked to find them.
          </p>
        </template>
      </section>
    </div>
    <p v-else-if="refusal" role="alert">{{ refusal.message }} {{ refusal.hint }}</p>
  </main>
</template>

<style scoped src="../styles/order.css"></style>
<style scoped>
.wish {
  display: grid;
  gap: 18px;
}
.sheet {
  position: sticky;
  top: 12px;
}
.count {
  padding-bottom: 8px;
}
.do {
  background: var(--ink);
  color: var(--paper);
  border: 0;
  border-radius: 3px;
  padding: 6px 16px;
  cursor: pointer;
  font-weight: 700;
}
.do:disabled {
  opacity: 0.5;
  cursor: default;
}
.acts .word,
.impossible .word {
  text-decoration: underline;
  text-underline-offset: 4px;
}
.impossible {
  border-left: 3px solid var(--role-wrong);
  padding-left: 14px;
}
.quiet {
  padding-top: 8px;
}
@media (max-width: 900px) {
  .sheet {
    position: static;
  }
}
</style>
