import { defineStore } from 'pinia'
import { computed, ref } from 'vue'

import {
  type Answer,
  ask,
  client,
  type Example,
  type ExampleSet,
  type ExampleSummary,
  type OtherWay,
  type Refusal,
  type Schemas,
  type Working,
} from '../api/client'
import { newKey, under } from '../api/send'
import { useLatest } from '../api/useLatest'
import limits from '../parts/limits.json'

export type Target = 'improper' | 'mixed' | 'fraction' | 'decimal'
type SetFields = Omit<Schemas['SetChange'], 'version'>
type ExampleFields = Omit<Schemas['ExampleChange'], 'version'>
type Made = { set: ExampleSet; example?: Example }

type Saving = 'saved' | 'saving' | 'not saved'
/**
 * A change that can be made on any version of the set, so that it can be made again on a newer one; *sent* has the key
 * under which the server knows it when it comes twice.
 */
type Change = (version: number, sent: ReturnType<typeof under>) => Promise<Answer<Made>>

/** The set on the Bench: what is shown, every change to it, and what became of the change. */
export const useBench = defineStore('bench', () => {
  const set = ref<ExampleSet | null>(null)
  const missing = ref<Refusal | null>(null)
  const chosen = ref<string | null>(null)
  const pages = ref<Record<string, Example>>({})
  const saving = ref<Saving>('saved')
  const savedAt = ref<Date | null>(null)
  const trouble = ref<Refusal | null>(null)
  const conflict = ref<ExampleSet | null>(null)
  const beside = ref<{ name: string; working: Working } | null>(null)
  let again: (() => Promise<boolean>) | null = null
  let last: Promise<unknown> = Promise.resolve()
  const [opening, loading] = [useLatest(), useLatest()]

  const examples = computed(() => set.value?.examples ?? [])
  const example = computed(() => examples.value.find((item) => item.id === chosen.value) ?? null)
  const page = computed(() => (chosen.value ? (pages.value[chosen.value] ?? null) : null))
  const working = computed(() => page.value?.working ?? null)
  const otherWays = computed(() => page.value?.other_ways ?? [])

  async function open(id: string): Promise<void> {
    missing.value = trouble.value = conflict.value = null
    if (set.value?.id !== id) {
      set.value = null
      pages.value = {}
    }
    const answer = await opening.latest((signal) =>
      client.GET('/api/sets/{set_id}', { params: { path: { set_id: id } }, signal }),
    )
    if (answer?.ok) set.value = answer.data
    else if (answer) missing.value = answer.refusal
  }

  async function choose(id: string | null): Promise<void> {
    chosen.value = id
    beside.value = null
    if (id && !pages.value[id]) await load(id)
  }

  async function load(id: string): Promise<void> {
    const summary = examples.value.find((item) => item.id === id)
    if (!set.value || !summary || summary.unreadable) return
    const path = { set_id: set.value.id, example_id: id }
    const answer = await loading.latest((signal) =>
      client.GET('/api/sets/{set_id}/examples/{example_id}', { params: { path }, signal }),
    )
    if (answer?.ok) pages.value[id] = answer.data
    else if (answer) trouble.value = answer.refusal
  }

  /**
   * Make *change* on the version at hand, after the changes before it; a refusal of its text is handed back. Two
   * changes at once would be made on the same version, and the second would be refused.
   */
  function make(change: Change, key = newKey()): Promise<Answer<Made>> {
    const made = last.then(() => makeNow(change, key))
    last = made.catch(() => null)
    return made
  }

  async function makeNow(change: Change, key: string): Promise<Answer<Made>> {
    const version = set.value?.version ?? 0
    saving.value = 'saving'
    const answer = await change(version, under(key))
    if (answer.ok) {
      set.value = answer.data.set
      if (answer.data.example) pages.value[answer.data.example.id] = answer.data.example
      beside.value = null
      saving.value = 'saved'
      savedAt.value = new Date()
      trouble.value = null
      return answer
    }
    // Where no answer came, it may have been made: sent again under its key, it is made once. A refused one is new.
    again = async () => (await make(change, answer.status === 0 || answer.status >= 500 ? key : newKey())).ok
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

  /** The other tab's version, with my change on top of it or without. */
  async function settle(keepMine: boolean): Promise<void> {
    const theirs = conflict.value
    conflict.value = null
    if (!theirs) return
    set.value = theirs
    if (keepMine && again) await again()
    else saving.value = 'saved'
    await workAnew()
  }

  async function tryAgain(): Promise<void> {
    trouble.value = null
    if (again && saving.value === 'not saved') await again()
    else if (set.value) await open(set.value.id)
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
    chosen.value = answer.data.example?.id ?? ''
    return null
  }

  /** Give the set an address at which it may be read, or withdraw it. */
  async function show(shown: boolean): Promise<void> {
    await make((_, sent) =>
      alone(ask(client.PUT('/api/sets/{set_id}/show', { params: here(), body: { shown }, ...sent }))),
    )
  }

  /** Put several problems at the end of the ladder, all or none. */
  async function take(problems: string[]): Promise<Refusal | null> {
    const answer = await make((version, sent) =>
      alone(
        ask(
          client.POST('/api/sets/{set_id}/problems', {
            params: here(),
            body: { version, problems, position: null },
            ...sent,
          }),
        ),
      ),
    )
    if (answer.ok && !chosen.value) await choose(examples.value[0]?.id ?? null)
    return answer.ok || answer.status !== 422 ? null : answer.refusal
  }

  async function remove(id: string): Promise<void> {
    const at = examples.value.findIndex((item) => item.id === id)
    if (at < 0) return
    const answer = await make((version, sent) => {
      const params = { path: { ...here().path, example_id: id }, query: { version } }
      return alone(ask(client.DELETE('/api/sets/{set_id}/examples/{example_id}', { params, ...sent })))
    })
    if (answer.ok && chosen.value === id) await choose((examples.value[at] ?? examples.value[at - 1])?.id ?? null)
  }

  async function reorder(order: string[]): Promise<void> {
    if (order.join() !== examples.value.map((item) => item.id).join()) await changeSet({ order })
  }

  async function move(id: string, to: number): Promise<void> {
    const order = examples.value.map((item) => item.id).filter((item) => item !== id)
    order.splice(Math.max(0, Math.min(to, order.length)), 0, id)
    await reorder(order)
  }

  /** Give the step *key* of the chosen example the teacher's own sentence; an empty one restores the core's. */
  async function reword(key: string, sentence: string): Promise<void> {
    await changeExample((now) => ({ words: withWords(now.words, key, sentence) }))
  }

  /** Give every step of a kind in the whole set the teacher's own sentence; an empty one restores the core's. */
  async function rewordSet(kind: string, sentence: string): Promise<void> {
    await changeSet((now) => ({ words: withWords(now.words, kind, sentence) }))
  }

  /** Change what is said of the set, its ways, words or order. Where that may change a working, it is fetched anew. */
  async function changeSet(change: SetFields | ((now: ExampleSet) => SetFields)): Promise<boolean> {
    let body: SetFields = {}
    const answer = await make((version, sent) => {
      body = typeof change === 'function' ? (set.value ? change(set.value) : {}) : change
      return alone(ask(client.PATCH('/api/sets/{set_id}', { params: here(), body: { version, ...body }, ...sent })))
    })
    if (answer.ok && (body.ways || body.words)) await workAnew()
    return answer.ok
  }

  /** Change what is kept of the chosen example: its text, ways, words, note, blanks or marks. */
  async function changeExample(change: ExampleFields | ((now: ExampleSummary) => ExampleFields)): Promise<boolean> {
    const id = chosen.value ?? ''
    const params = { path: { ...here().path, example_id: id } }
    const answer = await make((version, sent) => {
      const now = examples.value.find((item) => item.id === id)
      const body = typeof change === 'function' ? (now ? change(now) : {}) : change
      return ask(
        client.PATCH('/api/sets/{set_id}/examples/{example_id}', { params, body: { version, ...body }, ...sent }),
      )
    })
    if (!answer.ok && answer.status === 422) trouble.value = answer.refusal
    return answer.ok
  }

  /** Give the chosen example's step, or its answer, so many points as were typed. */
  async function give(key: string, typed: string): Promise<void> {
    const points = Math.max(0, Math.min(limits.points, Math.round(Number(typed)) || 0))
    await changeExample(({ marks }) => ({ marks: { ...marks, [key]: points } }))
  }

  /** Leave pupils so many of the last steps of each example. */
  async function fade(hides: Record<string, number>): Promise<void> {
    const answer = await make((version, sent) =>
      alone(ask(client.PUT('/api/sets/{set_id}/fading', { params: here(), body: { version, hides }, ...sent }))),
    )
    if (answer.ok) await workAnew()
  }

  /** The ways for all sets have changed: see the set and the paper with them. */
  async function houseChanged(): Promise<void> {
    if (set.value) await open(set.value.id)
    await workAnew()
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
    const kept = examples.value.find((item) => item.id === chosen.value)
    pages.value = {}
    await choose((back ?? kept ?? examples.value[0])?.id ?? null)
  }

  async function workAnew(): Promise<void> {
    // What is on the paper stays there until its successor has come, so that an open step stays open.
    pages.value = chosen.value && page.value ? { [chosen.value]: page.value } : {}
    if (chosen.value) await load(chosen.value)
  }

  /** Put the chosen example, worked in another way, beside its own working; it is shown and not kept. */
  async function showBeside(way: OtherWay): Promise<void> {
    if (!example.value || !working.value) return
    const ways = { ...working.value.methods, [way.setting]: way.code }
    const answer = await ask(
      client.POST('/api/work', { body: { text: working.value.story?.source ?? example.value.text, ways } }),
    )
    if (answer.ok) beside.value = { name: way.name, working: answer.data }
    else trouble.value = answer.refusal
  }

  const here = () => ({ path: { set_id: set.value?.id ?? '' } })

  return {
    set,
    missing,
    chosen,
    example,
    examples,
    working,
    saving,
    savedAt,
    trouble,
    conflict,
    otherWays,
    beside,
    open,
    choose,
    add,
    take,
    show,
    remove,
    move,
    reorder,
    reword,
    rewordSet,
    changeSet,
    changeExample,
    give,
    fade,
    houseChanged,
    showBeside,
    undo,
    redo,
    settle,
    tryAgain,
  }
})

function withWords(words: Record<string, string>, key: string, sentence: string): Record<string, string> {
  const { [key]: _old, ...others } = words
  return sentence ? { ...others, [key]: sentence } : others
}

async function alone(call: Promise<Answer<ExampleSet>>): Promise<Answer<Made>> {
  const answer = await call
  return answer.ok ? { ok: true, data: { set: answer.data } } : answer
}
