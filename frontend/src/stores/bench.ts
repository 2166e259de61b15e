import { defineStore } from 'pinia'
import { computed, ref } from 'vue'

import { type Answer, ask, client, type ExampleSet, type ExampleSummary, type Refusal, type Working } from '../api/client'

type Saving = 'saved' | 'saving' | 'not saved'
/** A change that can be made on any version of the set, so that it can be made again on a newer one. */
type Change = (version: number) => Promise<Answer<{ set: ExampleSet; working?: Working; id?: string }>>
/** What takes a change back again. */
type Inverse = () => Promise<boolean>

/** The set on the Bench: what is shown, every change to it, and what became of the change. */
export const useBench = defineStore('bench', () => {
  const set = ref<ExampleSet | null>(null)
  const missing = ref<Refusal | null>(null)
  const chosen = ref<string | null>(null)
  const workings = ref<Record<string, Working>>({})
  const saving = ref<Saving>('saved')
  const savedAt = ref<Date | null>(null)
  const trouble = ref<Refusal | null>(null)
  const conflict = ref<ExampleSet | null>(null)
  const undoable = ref<{ said: string; inverse: Inverse }[]>([])
  let again: (() => Promise<boolean>) | null = null

  const examples = computed(() => set.value?.examples ?? [])
  const example = computed(() => examples.value.find((item) => item.id === chosen.value) ?? null)
  const working = computed(() => (chosen.value ? (workings.value[chosen.value] ?? null) : null))

  async function open(id: string): Promise<void> {
    missing.value = trouble.value = conflict.value = null
    if (set.value?.id !== id) {
      set.value = null
      workings.value = {}
      undoable.value = []
    }
    const answer = await ask(client.GET('/api/sets/{set_id}', { params: { path: { set_id: id } } }))
    if (answer.ok) set.value = answer.data
    else missing.value = answer.refusal
  }

  async function choose(id: string | null): Promise<void> {
    chosen.value = id
    if (id && !workings.value[id]) await load(id)
  }

  async function load(id: string): Promise<void> {
    const summary = examples.value.find((item) => item.id === id)
    if (!set.value || !summary || summary.unreadable) return
    const path = { set_id: set.value.id, example_id: id }
    const answer = await ask(client.GET('/api/sets/{set_id}/examples/{example_id}', { params: { path } }))
    if (answer.ok) workings.value[id] = answer.data.working
    else trouble.value = answer.refusal
  }

  /** Make *change* on the version at hand; true when it was saved. A refusal of its text is handed back. */
  async function make(change: Change): Promise<Answer<{ set: ExampleSet; working?: Working; id?: string }>> {
    const version = set.value?.version ?? 0
    saving.value = 'saving'
    const answer = await change(version)
    if (answer.ok) {
      set.value = answer.data.set
      if (answer.data.id && answer.data.working) workings.value[answer.data.id] = answer.data.working
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
    workings.value = {}
    if (keepMine && again) await again()
    else saving.value = 'saved'
    if (chosen.value) await load(chosen.value)
  }

  async function tryAgain(): Promise<void> {
    trouble.value = null
    if (again && saving.value === 'not saved') await again()
    else if (set.value) await open(set.value.id)
  }

  async function add(source: string, at?: number, like?: ExampleSummary): Promise<Refusal | null> {
    const answer = await make((version) => {
      const body = { version, source, position: at ?? null, ways: like?.ways ?? {}, words: like?.words ?? {} }
      return withExample(ask(client.POST('/api/sets/{set_id}/examples', { params: here(), body })))
    })
    if (!answer.ok) return answer.status === 422 ? answer.refusal : null
    const id = answer.data.id as string
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
    const inverse = async () => (await add(gone.source, at, gone)) === null
    if (!undoing) undoable.value.push({ said: `${gone.text} was taken off`, inverse })
    return true
  }

  async function reorder(order: string[], undoing = false): Promise<boolean> {
    const before = examples.value.map((item) => item.id)
    if (order.join() === before.join()) return true
    const answer = await make((version) =>
      alone(ask(client.PATCH('/api/sets/{set_id}', { params: here(), body: { version, order } }))),
    )
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
    const answer = await make((version) =>
      alone(ask(client.PATCH('/api/sets/{set_id}', { params: here(), body: { version, title } }))),
    )
    if (answer.ok && !undoing) undoable.value.push({ said: 'Renamed', inverse: () => rename(before, true) })
    return answer.ok
  }

  /** Give step *index* of the chosen example the teacher's own reason; an empty one restores the core's. */
  async function reword(index: number, sentence: string): Promise<void> {
    if (example.value) await setWords(example.value.id, withWords(example.value.words, index, sentence))
  }

  async function setWords(id: string, words: Record<string, string>, undoing = false): Promise<boolean> {
    const before = examples.value.find((item) => item.id === id)?.words ?? {}
    const answer = await make((version) => {
      const params = { path: { ...here().path, example_id: id } }
      return withExample(
        ask(client.PATCH('/api/sets/{set_id}/examples/{example_id}', { params, body: { version, words } })),
      )
    })
    if (answer.ok && !undoing) undoable.value.push({ said: 'Reworded', inverse: () => setWords(id, before, true) })
    return answer.ok
  }

  async function undo(): Promise<void> {
    const last = undoable.value.at(-1)
    if (last && (await last.inverse())) undoable.value.pop()
  }

  const here = () => ({ path: { set_id: set.value?.id ?? '' } })

  return {
    set, missing, chosen, example, examples, working, saving, savedAt, trouble, conflict, undoable,
    open, choose, add, remove, move, rename, reword, undo, settle, tryAgain,
  }
})

function withWords(words: Record<string, string>, index: number, sentence: string): Record<string, string> {
  const { [String(index)]: _old, ...others } = words
  return sentence ? { ...others, [String(index)]: sentence } : others
}

type WithExample = { set: ExampleSet; example: { id: string; working: Working } }

async function withExample(call: Promise<Answer<WithExample>>): Promise<Answer<{ set: ExampleSet; working: Working; id: string }>> {
  const answer = await call
  if (!answer.ok) return answer
  const { set, example } = answer.data
  return { ok: true, data: { set, working: example.working, id: example.id } }
}

async function alone(call: Promise<Answer<ExampleSet>>): Promise<Answer<{ set: ExampleSet }>> {
  const answer = await call
  return answer.ok ? { ok: true, data: { set: answer.data } } : answer
}
