import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'

import {
  type Answer,
  ask,
  client,
  type Example,
  type ExampleSet,
  type ExampleSummary,
  type Refusal,
  type Schemas,
} from '../api/client'
import { newKey, NOT_SENT, under } from '../api/send'
import { useLatest } from '../api/useLatest'
import { withEntry } from '../parts/withEntry'
import { type Target, usePaper } from './paper'
import { unsentOf } from './unsent'
import { oneAtATime } from '../parts/oneAtATime'

type SetFields = Omit<Schemas['SetChange'], 'version'>
export type Made = { set: ExampleSet; example?: Example }

type Saving = 'saved' | 'saving' | 'not saved'
/**
 * A change that can be made on any version of the set, so that it can be made again on a newer one; *sent* has the key
 * under which the server knows it when it comes twice.
 */
export type Change = (version: number, sent: ReturnType<typeof under>) => Promise<Answer<Made>>
const AGAIN = 2000 // milliseconds until a change that was not answered is sent again

/** The set on the Bench: what is shown, every change to it, and what became of the change. */
export const useBench = defineStore('bench', () => {
  const set = shallowRef<ExampleSet | null>(null) // replaced, never changed in place
  const missing = ref<Refusal | null>(null)
  const saving = ref<Saving>('saved')
  const savedAt = ref<Date | null>(null)
  const trouble = ref<Refusal | null>(null)
  const conflict = shallowRef<ExampleSet | null>(null)
  let again: (() => Promise<boolean>) | null = null
  const inTurn = oneAtATime()
  let sendNow: (() => void) | null = null
  const opening = useLatest()

  const examples = computed(() => set.value?.examples ?? [])

  async function open(id: string): Promise<void> {
    missing.value = trouble.value = conflict.value = null
    if (set.value?.id !== id) {
      set.value = null
      usePaper().clear()
    }
    const answer = await opening.latest((signal) =>
      client.GET('/api/sets/{set_id}', { params: { path: { set_id: id } }, signal }),
    )
    if (answer && !answer.ok) missing.value = answer.refusal
    if (!answer?.ok) return
    set.value = answer.data
    // What was under way when the page was left, or when the server went away.
    for (const { key, change } of unsentOf(id).all()) void make(change, key)
  }

  /**
   * Make *change* on the version at hand, after the changes before it; a refusal of its text is handed back. Two
   * changes at once would be made on the same version, and the second would be refused.
   */
  function make(change: Change, key = newKey()): Promise<Answer<Made>> {
    const id = set.value?.id ?? ''
    if (saving.value === 'not saved') void park(id, change, key)
    return inTurn(() => makeNow(id, change, key))
  }

  /** While the server is away, what waits behind the change that is tried is kept, too. */
  async function park(id: string, change: Change, key: string): Promise<void> {
    await change(set.value?.version ?? 0, under(key, true))
    unsentOf(id).keep(key, false)
  }

  /** Where no answer comes, it is kept and sent again under its key, until one comes or another set is opened. */
  async function makeNow(id: string, change: Change, key: string): Promise<Answer<Made>> {
    const unsent = unsentOf(id)
    let answer: Answer<Made>
    for (;;) {
      saving.value = trouble.value ? 'not saved' : 'saving'
      answer = await change(set.value?.version ?? 0, under(key))
      if (answer.ok || !notAnswered(answer.status)) break
      unsent.keep(key, answer.refusal !== NOT_SENT)
      if (set.value?.id !== id) return answer
      saving.value = 'not saved'
      trouble.value = answer.refusal
      await nextTry()
      if (set.value?.id !== id) return answer
    }
    unsent.taken(key)
    if (answer.ok) {
      set.value = answer.data.set
      usePaper().made(answer.data.example)
      saving.value = 'saved'
      savedAt.value = new Date()
      trouble.value = null
      return answer
    }
    again = async () => (await make(change)).ok
    if (answer.status === 409) {
      saving.value = 'not saved'
      conflict.value = (answer.body as { set: ExampleSet }).set
    } else if (answer.status === 422) {
      saving.value = 'saved'
    } else {
      saving.value = 'not saved'
      trouble.value = answer.refusal
    }
    return answer
  }

  function nextTry(): Promise<void> {
    return new Promise((resolve) => {
      sendNow = resolve
      window.setTimeout(resolve, AGAIN)
    })
  }

  /** The other tab's version, with my change on top of it or without. */
  async function settle(keepMine: boolean): Promise<void> {
    const theirs = conflict.value
    conflict.value = null
    if (!theirs) return
    set.value = theirs
    if (keepMine && again) await again()
    else saving.value = 'saved'
    await usePaper().workAnew()
  }

  async function tryAgain(): Promise<void> {
    if (saving.value === 'not saved' && sendNow) return sendNow()
    trouble.value = null
    if (set.value) await open(set.value.id)
  }

  async function add(source: string, at?: number, like?: ExampleSummary): Promise<Refusal | null> {
    const answer = await make((version, sent) => {
      const body = {
        version,
        source,
        position: at ?? null,
        ways: like?.ways ?? {},
        words: {},
        target: (like?.target ?? null) as Target | null,
        note: '',
      }
      return ask(client.POST('/api/sets/{set_id}/examples', { params: here(), body, ...sent }))
    })
    if (!answer.ok) return answer.status === 422 ? answer.refusal : null
    await usePaper().choose(answer.data.example?.id ?? '')
    return null
  }

  /** Give the set an address at which it may be read, or withdraw it. */
  async function show(shown: boolean): Promise<void> {
    await make((_, sent) =>
      alone(ask(client.PUT('/api/sets/{set_id}/show', { params: here(), body: { shown }, ...sent }))),
    )
  }

  /** Put several problems at the end of the ladder, all or none. */
  async function take(problems: string[], targets: (Target | null)[] = []): Promise<Refusal | null> {
    const answer = await make((version, sent) =>
      alone(
        ask(
          client.POST('/api/sets/{set_id}/problems', {
            params: here(),
            body: { version, problems, targets, position: null },
            ...sent,
          }),
        ),
      ),
    )
    const paper = usePaper()
    if (answer.ok && !paper.chosen) await paper.choose(examples.value[0]?.id ?? null)
    return answer.ok || answer.status !== 422 ? null : answer.refusal
  }

  /** Put problems that were built at the end of the ladder, each with the form that it is asked for. */
  async function takeBuilt(built: Schemas['LadderProblem'][]): Promise<Refusal | null> {
    return take(
      built.map((one) => one.text),
      built.map((one) => one.target),
    )
  }

  async function remove(id: string): Promise<void> {
    const at = examples.value.findIndex((item) => item.id === id)
    if (at < 0) return
    const answer = await make((version, sent) => {
      const params = { path: { ...here().path, example_id: id }, query: { version } }
      return alone(ask(client.DELETE('/api/sets/{set_id}/examples/{example_id}', { params, ...sent })))
    })
    const paper = usePaper()
    if (answer.ok && paper.chosen === id) await paper.choose((examples.value[at] ?? examples.value[at - 1])?.id ?? null)
  }

  async function reorder(order: string[]): Promise<void> {
    if (order.join() !== examples.value.map((item) => item.id).join()) await changeSet({ order })
  }

  async function move(id: string, to: number): Promise<void> {
    const order = examples.value.map((item) => item.id).filter((item) => item !== id)
    order.splice(Math.max(0, Math.min(to, order.length)), 0, id)
    await reorder(order)
  }

  /** Give every step of a kind in the whole set the teacher's own sentence; an empty one restores the core's. */
  async function rewordSet(kind: string, sentence: string): Promise<void> {
    await changeSet((now) => ({ words: withEntry(now.words, kind, sentence) }))
  }

  /** Change what is said of the set, its ways, words or order. Where that may change a working, it is fetched anew. */
  async function changeSet(change: SetFields | ((now: ExampleSet) => SetFields)): Promise<boolean> {
    let body: SetFields = {}
    const answer = await make((version, sent) => {
      body = typeof change === 'function' ? (set.value ? change(set.value) : {}) : change
      return alone(ask(client.PATCH('/api/sets/{set_id}', { params: here(), body: { version, ...body }, ...sent })))
    })
    if (answer.ok && (body.ways || body.words)) await usePaper().workAnew()
    if (!answer.ok && answer.status === 422) trouble.value = answer.refusal
    return answer.ok
  }

  /** Leave pupils so many of the last steps of each example. */
  async function fade(hides: Record<string, number>): Promise<void> {
    const answer = await make((version, sent) =>
      alone(ask(client.PUT('/api/sets/{set_id}/fading', { params: here(), body: { version, hides }, ...sent }))),
    )
    if (answer.ok) await usePaper().workAnew()
  }

  /** The ways for all sets have changed: see the set and the paper with them. */
  async function houseChanged(): Promise<void> {
    if (set.value) await open(set.value.id)
    await usePaper().workAnew()
  }

  /** Take back the last change, or do again what was taken back; the history is the server's and outlives the page. */
  async function undo(): Promise<void> {
    await travel((version, sent) =>
      alone(ask(client.POST('/api/sets/{set_id}/undo', { params: here(), body: { version }, ...sent }))),
    )
  }

  async function redo(): Promise<void> {
    await travel((version, sent) =>
      alone(ask(client.POST('/api/sets/{set_id}/redo', { params: here(), body: { version }, ...sent }))),
    )
  }

  async function travel(change: Change): Promise<void> {
    const before = examples.value.map((item) => item.id)
    const answer = await make(change)
    if (!answer.ok) return
    const back = examples.value.find((item) => !before.includes(item.id))
    const paper = usePaper()
    const kept = examples.value.find((item) => item.id === paper.chosen)
    paper.clear()
    await paper.choose((back ?? kept ?? examples.value[0])?.id ?? null)
  }

  const here = () => ({ path: { set_id: set.value?.id ?? '' } })

  return {
    set,
    missing,
    examples,
    saving,
    savedAt,
    trouble,
    conflict,
    open,
    make,
    add,
    take,
    takeBuilt,
    show,
    remove,
    move,
    reorder,
    rewordSet,
    changeSet,
    fade,
    houseChanged,
    undo,
    redo,
    settle,
    tryAgain,
  }
})

function notAnswered(status: number): boolean {
  return status === 0 || status >= 500
}

async function alone(call: Promise<Answer<ExampleSet>>): Promise<Answer<Made>> {
  const answer = await call
  return answer.ok ? { ok: true, data: { set: answer.data } } : answer
}
