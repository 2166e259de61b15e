import { watchDebounced } from '@vueuse/core'
import { computed, onMounted, ref, shallowRef } from 'vue'

import { ask, client, type Refusal, type Schemas, type StoryChoices } from '../api/client'
import { useLatest } from '../api/useLatest'
import { scenarioOptions } from './scenarioOptions'

const PAUSE = 400 // milliseconds after a change of the wish

/** What stories are wished for. */
export interface StoryWish {
  counts: Record<string, number>
  scenario: string
  situations: string[]
  calculations: string[]
  denominators: number[]
  largestWhole: number
}

/** Stories made to order: the wish, what was made, which of it stays. */
export function useMakeStories(setId: string) {
  const choices = shallowRef<StoryChoices | null>(null)
  const wish = ref<StoryWish>({
    counts: { S1: 2, S2: 1, S3: 1, S4: 1, S5: 1 },
    scenario: 'any',
    situations: [],
    calculations: ['F4', 'F5', 'M3', 'M5', 'M7', 'M8'],
    denominators: [2, 3, 4, 5, 6, 8, 10, 12],
    largestWhole: 12,
  })
  const seed = ref(Math.floor(Math.random() * 2 ** 30))
  const made = shallowRef<Schemas['MadeOut'] | null>(null)
  const kept = ref<boolean[]>([])
  const shunned = ref<string[]>([])
  const refusal = ref<Refusal | null>(null)
  const busy = ref(false)
  const { latest } = useLatest()

  const total = computed(() => Object.values(wish.value.counts).reduce((sum, count) => sum + count, 0))
  const scenarios = computed(() => [{ code: 'any', name: 'anywhere' }, ...scenarioOptions(choices.value)])

  function spec(): Record<string, unknown> {
    return {
      rungs: wish.value.counts,
      scenario: wish.value.scenario === 'any' ? null : wish.value.scenario,
      situations: wish.value.situations.length ? wish.value.situations : null,
      calculations: wish.value.calculations.length ? wish.value.calculations : null,
      denominators: wish.value.denominators,
      largest_whole: wish.value.largestWhole,
      seed: seed.value,
    }
  }

  async function make(stay: (string | null)[] = []): Promise<void> {
    if (!total.value) {
      made.value = null
      return
    }
    busy.value = true
    const body = { spec: spec(), set_id: setId, kept: stay, shunned: shunned.value }
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

  onMounted(async () => {
    const answer = await ask(client.GET('/api/stories'))
    if (answer.ok) choices.value = answer.data
    else refusal.value = answer.refusal
    if (answer.ok) await make()
  })

  // Stories follow the wish; those that are kept stay as long as their steps do.
  let steps = JSON.stringify(wish.value.counts)
  watchDebounced(
    wish,
    async () => {
      const now = JSON.stringify(wish.value.counts)
      const same = now === steps
      steps = now
      await make(same ? sources().map((source, i) => (kept.value[i] ? source : null)) : [])
    },
    { deep: true, debounce: PAUSE },
  )
  return { choices, wish, scenarios, made, kept, refusal, busy, total, another, swap }
}
