import { watchDebounced } from '@vueuse/core'
import { computed, onMounted, ref, shallowRef } from 'vue'

import { ask, type Choices, client, type Ladder, type LadderProblem, type Refusal, type Schemas } from '../api/client'
import { useLatest } from '../api/useLatest'
import { emptyWish, slotsOf, type Wish, wishAsSpec, withNearest } from './wish'

/** A wish for a ladder, and the ladder that is built anew whenever the wish changes. */
export function useLadder(setId: string) {
  const choices = ref<Choices | null>(null)
  const wish = ref<Wish>(emptyWish())
  const ladder = shallowRef<Ladder | null>(null)
  const smallest = shallowRef<Schemas['SmallestOut'] | null>(null)
  const locked = ref<boolean[]>([])
  const shunned = ref<string[]>([])
  const refusal = ref<Refusal | null>(null)
  const busy = ref(false)
  const total = computed(() => Object.values(wish.value.rungs).reduce((sum, count) => sum + count, 0))
  const { latest, drop } = useLatest()
  /** The wish for which the fewest problems were asked for instead of a ladder. */
  let fewestOf = ''

  async function build(kept: (string | null)[] = stillKept()): Promise<void> {
    if (!total.value) {
      drop()
      busy.value = false
      return void (ladder.value = null)
    }
    busy.value = true
    const body = { spec: wishAsSpec(wish.value), set_id: setId, kept, shunned: shunned.value }
    const answer = await latest((signal) => client.POST('/api/ladders', { body, signal }))
    if (!answer) return
    busy.value = false
    refusal.value = answer.ok ? null : answer.refusal
    if (!answer.ok) return
    ladder.value = answer.data
    smallest.value = null
    locked.value = answer.data.problems.map((_, i) => !!kept[i])
  }
  watchDebounced(wish, () => (JSON.stringify(wish.value) === fewestOf ? undefined : build()), {
    deep: true,
    debounce: 150,
  })

  /** The kept problems, each in a place of its own rung in the wish as it is now. */
  function stillKept(): (string | null)[] {
    const slots = slotsOf(wish.value, choices.value)
    const kept: (string | null)[] = slots.map(() => null)
    const keeping = (ladder.value?.problems ?? []).filter((_, i) => locked.value[i])
    for (const one of keeping) {
      const at = slots.findIndex((rung, i) => rung === one.rung && kept[i] === null)
      if (at >= 0) kept[at] = one.text
    }
    return kept
  }

  async function another(): Promise<void> {
    shunned.value = []
    wish.value.seed = Math.floor(Math.random() * 2 ** 30) // the change builds it anew
  }

  /** The next best in the place of one, the others staying. */
  async function swap(at: number): Promise<void> {
    const now = (ladder.value?.problems ?? []).map((one: LadderProblem) => one.text)
    const before = [...locked.value]
    shunned.value.push(now[at] ?? '')
    await build(now.map((text, i) => (i === at ? null : text)))
    locked.value = before
  }

  /** So many problems from one rung to another. */
  async function span(from: string, to: string, steps: number): Promise<void> {
    const answer = await ask(client.POST('/api/ladders/count', { body: { spec: { from, to, steps }, set_id: setId } }))
    if (answer.ok) wish.value.rungs = answer.data.rungs
    else refusal.value = answer.refusal
  }

  /** Give the wish the nearest value that allows a ladder. */
  function takeNearest(): void {
    const why = ladder.value?.impossible
    if (why) wish.value = withNearest(wish.value, why.limit, why.nearest)
  }

  async function fewest(): Promise<void> {
    fewestOf = JSON.stringify(wish.value)
    busy.value = true
    const wanted = { codes: wish.value.targets, set_id: setId }
    const answer = await latest((signal) => client.POST('/api/ladders/smallest', { body: wanted, signal }))
    if (!answer) return
    busy.value = false
    refusal.value = answer.ok ? null : answer.refusal
    if (!answer.ok) return
    smallest.value = answer.data
    ladder.value = null
  }

  // The wish begins where the set is: a problem for each of its rungs, or the first unlike fractions.
  onMounted(async () => {
    const path = { set_id: setId }
    const [found, set] = await Promise.all([
      ask(client.GET('/api/ladders')),
      ask(client.GET('/api/sets/{set_id}', { params: { path } })),
    ])
    if (!found.ok) return void (refusal.value = found.refusal)
    choices.value = found.data
    const known = new Set(found.data.rungs.map((rung) => rung.code))
    const rungs: Record<string, number> = {}
    for (const one of set.ok ? set.data.examples : [])
      if (one.rung && known.has(one.rung)) rungs[one.rung] = (rungs[one.rung] ?? 0) + 1
    wish.value.rungs = Object.keys(rungs).length ? rungs : { F4: 2, F5: 2, F6: 2 }
  })

  return { choices, wish, ladder, smallest, locked, refusal, busy, total, another, swap, span, takeNearest, fewest }
}
