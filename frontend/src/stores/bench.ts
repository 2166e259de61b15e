import { defineStore } from 'pinia'
import { computed, ref } from 'vue'

import {
  type Answer, ask, client, type Example, type ExampleSet, type ExampleSummary, type OtherWay, type Refusal,
  type Setting, type Working,
} from '../api/client'

export type Target = 'improper' | 'mixed' | 'fraction' | 'decimal'
type WaysMap = Record<string, string>
type Made = { set: ExampleSet; example?: Example }

type Saving = 'saved' | 'saving' | 'not saved'
/** A change that can be made on any version of the set, so that it can be made again on a newer one. */
type Change = (version: number) => Promise<Answer<Made>>
/** What takes a change back again. */
type Inverse = () => Promise<boolean>

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
  const undoable = ref<{ said: string; inverse: Inverse }[]>([])
  const settings = ref<Setting[]>([])
  const beside = ref<{ name: string; working: Working } | null>(null)
  let again: (() => Promise<boolean>) | null = null

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
      undoable.value = []
    }
    const answer = await ask(client.GET('/api/sets/{set_id}', { params: { path: { set_id: id } } }))
    if (answer.ok) set.value = answer.data
    else missing.value = answer.refusal
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
    const answer = await ask(client.GET('/api/sets/{set_id}/examples/{example_id}', { params: { path } }))
    if (answer.ok) pages.value[id] = answer.data
    else trouble.value = answer.refusal
  }

  /** Make *change* on the version at hand; true when it was saved. A refusal of its text is handed back. */
  async function make(change: Change): Promise<Answer<Made>> {
    const version = set.value?.version ?? 0
    saving.value = 'saving'
    const answer = await change(version)
    if (answer.ok) {
      set.value = answer.data.set
      if (answer.data.example) pages.value[answer.data.example.id] = answer.data.example
      beside.value = null
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
    const answer = await make((version) => {
      const body = { version, source, position: at ?? null, ways: like?.ways ?? {}, words: like?.words ?? {}, target: (like?.target ?? null) as Target | null }
      return ask(client.POST('/api/sets/{set_id}/examples', { params: here(), body }))
    })
    if (!answer.ok) return answer.status === 422 ? answer.refusal : null
    const id = answer.data.example?.id ?? ''
    chosen.value = id
    if (!like) undoable.value.push({ said: 'Added', inverse: () => remove(id, true) })
    return null
  }

  async function remove(id: string, undoing = false): Promise<boolean> {
    const at = examples.value.findIndex((item) => item.id === id)
    const gone = examples.value[at]
    if (!gone) return true
    const answer = await make((version) => {
      const params = { path: { ...here().path, example_id: id }, query: { version } }
      return alone(ask(client.DELETE('/api/sets/{set_id}/examples/{example_id}', { params })))
    })
    if (!answer.ok) return false
    if (chosen.value === id) await choose((examples.value[at] ?? examples.value[at - 1])?.id ?? null)
    const inverse = async () => (await add(gone.text, at, gone)) === null
    if (!undoing) undoable.value.push({ said: `${gone.text} was taken off`, inverse })
    return true
  }

  async function reorder(order: string[], undoing = false): Promise<boolean> {
    const before = examples.value.map((item) => item.id)
    if (order.join() === before.join()) return true
    const answer = await changeSet({ order })
    if (answer.ok && !undoing) undoable.value.push({ said: 'Moved', inverse: () => reorder(before, true) })
    return answer.ok
  }

  async function move(id: string, to: number): Promise<void> {
    const order = examples.value.map((item) => item.id).filter((item) => item !== id)
    order.splice(Math.max(0, Math.min(to, order.length)), 0, id)
    await reorder(order)
  }

  async function rename(title: string, undoing = false): Promise<boolean> {
    const before = set.value?.title ?? ''
    const answer = await changeSet({ title })
    if (answer.ok && !undoing) undoable.value.push({ said: 'Renamed', inverse: () => rename(before, true) })
    return answer.ok
  }

  /** Give the step *key* of the chosen example the teacher's own sentence; an empty one restores the core's. */
  async function reword(key: string, sentence: string): Promise<void> {
    if (example.value) await setWords(example.value.id, withWords(example.value.words, key, sentence))
  }

  /** Give every step of a kind in the whole set the teacher's own sentence; an empty one restores the core's. */
  async function rewordSet(kind: string, sentence: string): Promise<void> {
    if (set.value) await setSetWords(withWords(set.value.words, kind, sentence))
  }

  async function setSetWords(words: WaysMap, undoing = false): Promise<boolean> {
    const before = set.value?.words ?? {}
    const answer = await changeSet({ words })
    if (answer.ok) await workAnew()
    if (answer.ok && !undoing) undoable.value.push({ said: 'Step changed', inverse: () => setSetWords(before, true) })
    return answer.ok
  }

  async function setWords(id: string, words: Record<string, string>, undoing = false): Promise<boolean> {
    const before = examples.value.find((item) => item.id === id)?.words ?? {}
    const answer = await make((version) => changeExample(id, { version, words }))
    if (answer.ok && !undoing) undoable.value.push({ said: 'Step changed', inverse: () => setWords(id, before, true) })
    return answer.ok
  }

  function changeSet(body: { title?: string; order?: string[]; ways?: WaysMap; words?: WaysMap }) {
    return make((version) =>
      alone(ask(client.PATCH('/api/sets/{set_id}', { params: here(), body: { version, ...body } }))),
    )
  }

  function changeExample(id: string, body: { version: number; source?: string; words?: WaysMap; ways?: WaysMap; target?: Target | '' }) {
    const params = { path: { ...here().path, example_id: id } }
    return ask(client.PATCH('/api/sets/{set_id}/examples/{example_id}', { params, body }))
  }

  /** Work an example in *ways* of its own; in none, it follows its set again. */
  async function setExampleWays(id: string, ways: WaysMap, undoing = false): Promise<boolean> {
    const before = examples.value.find((item) => item.id === id)?.ways ?? {}
    const answer = await make((version) => changeExample(id, { version, ways }))
    if (answer.ok && !undoing) {
      undoable.value.push({ said: 'Worked another way', inverse: () => setExampleWays(id, before, true) })
    }
    return answer.ok
  }

  /** Ask for a lone number in another form; '' asks for its simplest. */
  async function setTarget(id: string, target: Target | '', undoing = false): Promise<boolean> {
    const before = (examples.value.find((item) => item.id === id)?.target ?? '') as Target | ''
    const answer = await make((version) => changeExample(id, { version, target }))
    if (!answer.ok && answer.status === 422) trouble.value = answer.refusal
    if (answer.ok && !undoing) undoable.value.push({ said: 'Asked otherwise', inverse: () => setTarget(id, before, true) })
    return answer.ok
  }

  /** Put another problem in the place of an example. */
  async function retype(id: string, source: string, undoing = false): Promise<boolean> {
    const before = examples.value.find((item) => item.id === id)?.text ?? ''
    const answer = await make((version) => changeExample(id, { version, source }))
    if (!answer.ok && answer.status === 422) trouble.value = answer.refusal
    if (answer.ok && !undoing) undoable.value.push({ said: 'Changed', inverse: () => retype(id, before, true) })
    return answer.ok
  }

  /** Give the set ways that depart from the house; every example that has none of its own follows. */
  async function setSetWays(ways: WaysMap, undoing = false): Promise<boolean> {
    const before = set.value?.ways ?? {}
    const answer = await changeSet({ ways })
    if (answer.ok) await workAnew()
    if (answer.ok && !undoing) undoable.value.push({ said: 'Ways changed', inverse: () => setSetWays(before, true) })
    return answer.ok
  }

  /** Give the house other ways; sets and examples with ways of their own keep them. */
  async function setHouseWays(house: WaysMap, undoing = false): Promise<boolean> {
    const before = set.value?.house ?? {}
    const answer = await ask(client.PUT('/api/ways', { body: { house } }))
    if (!answer.ok) {
      trouble.value = answer.refusal
      return false
    }
    if (set.value) await open(set.value.id)
    await workAnew()
    if (!undoing) undoable.value.push({ said: 'Ways changed', inverse: () => setHouseWays(before, true) })
    return true
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
    const answer = await ask(client.POST('/api/work', { body: { text: example.value.text, ways } }))
    if (answer.ok) beside.value = { name: way.name, working: answer.data }
    else trouble.value = answer.refusal
  }

  /** Every setting that offers a choice; asked for once. */
  async function loadSettings(): Promise<void> {
    if (settings.value.length) return
    const answer = await ask(client.GET('/api/ways'))
    if (answer.ok) settings.value = answer.data.settings
  }

  async function undo(): Promise<void> {
    const last = undoable.value.at(-1)
    if (last && (await last.inverse())) undoable.value.pop()
  }

  const here = () => ({ path: { set_id: set.value?.id ?? '' } })

  return {
    set, missing, chosen, example, examples, working, saving, savedAt, trouble, conflict, undoable,
    otherWays, settings, beside, showBeside,
    open, choose, add, remove, move, rename, reword, rewordSet, setExampleWays, setTarget, retype, setSetWays, setHouseWays, loadSettings, undo,
    settle, tryAgain,
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
