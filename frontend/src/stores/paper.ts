import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'

import {
  ask,
  client,
  type Example,
  type ExampleSummary,
  type OtherWay,
  type Refusal,
  type Schemas,
  type Working,
} from '../api/client'
import { useLatest } from '../api/useLatest'
import { withEntry } from '../parts/withEntry'
import { useBench } from './bench'

export type Target = 'improper' | 'mixed' | 'fraction' | 'decimal'
type ExampleFields = Omit<Schemas['ExampleChange'], 'version'>

/** What lies on the paper: the chosen example with its working, or what is typed, in pencil. */
export const usePaper = defineStore('paper', () => {
  const bench = useBench()
  const chosen = ref<string | null>(null)
  // Documents are replaced and never changed in place: nothing within them is watched.
  const pages = shallowRef<Record<string, Example>>({})
  const beside = shallowRef<{ name: string; working: Working } | null>(null)
  const pencil = shallowRef<Working | null>(null)
  const loading = useLatest()

  const example = computed(() => bench.examples.find((item) => item.id === chosen.value) ?? null)
  const page = computed(() => (chosen.value ? (pages.value[chosen.value] ?? null) : null))
  const working = computed(() => pencil.value ?? page.value?.working ?? null)
  const otherWays = computed(() => page.value?.other_ways ?? [])

  async function choose(id: string | null): Promise<void> {
    chosen.value = id
    beside.value = pencil.value = null
    if (id && !pages.value[id]) await load(id)
  }

  async function load(id: string): Promise<void> {
    const summary = bench.examples.find((item) => item.id === id)
    if (!bench.set || !summary || summary.unreadable) return
    const path = { set_id: bench.set.id, example_id: id }
    const answer = await loading.latest((signal) =>
      client.GET('/api/sets/{set_id}/examples/{example_id}', { params: { path }, signal }),
    )
    if (answer?.ok) keep(answer.data)
    else if (answer) bench.trouble = answer.refusal
  }

  function keep(one: Example): void {
    pages.value = { ...pages.value, [one.id]: one }
  }

  /** A change of the set was made; with it came an example, worked. */
  function made(changed?: Example): void {
    if (changed) keep(changed)
    beside.value = null
  }

  /** Nothing that was worked before holds any more. */
  function clear(): void {
    pages.value = {}
  }

  async function workAnew(): Promise<void> {
    // What is on the paper stays there until its successor has come, so that an open step stays open.
    pages.value = chosen.value && page.value ? { [chosen.value]: page.value } : {}
    if (chosen.value) await load(chosen.value)
  }

  /** Change what is kept of the chosen example: its text, ways, words, note, blanks or marks. */
  async function changeExample(change: ExampleFields | ((now: ExampleSummary) => ExampleFields)): Promise<boolean> {
    const id = chosen.value ?? ''
    const params = { path: { set_id: bench.set?.id ?? '', example_id: id } }
    const answer = await bench.make((version, sent) => {
      const now = bench.examples.find((item) => item.id === id)
      const body = typeof change === 'function' ? (now ? change(now) : {}) : change
      return ask(
        client.PATCH('/api/sets/{set_id}/examples/{example_id}', { params, body: { version, ...body }, ...sent }),
      )
    })
    if (!answer.ok && answer.status === 422) bench.trouble = answer.refusal
    return answer.ok
  }

  /** Give the step *key* of the chosen example the teacher's own sentence; an empty one restores the core's. */
  async function reword(key: string, sentence: string): Promise<void> {
    await changeExample((now) => ({ words: withEntry(now.words, key, sentence) }))
  }

  /** Give the chosen example's step, or its answer, so many points. */
  async function give(key: string, points: number | null): Promise<void> {
    await changeExample(({ marks }) => ({ marks: { ...marks, [key]: points ?? 0 } }))
  }

  /** Put the chosen example, worked in another way, beside its own working; it is shown and not kept. */
  async function showBeside(way: OtherWay): Promise<void> {
    if (!example.value || !working.value) return
    const ways = { ...working.value.methods, [way.setting]: way.code }
    const body = { text: working.value.story?.source ?? example.value.text, ways }
    const answer = await ask(client.POST('/api/work', { body }))
    if (answer.ok) beside.value = { name: way.name, working: answer.data }
    else bench.trouble = answer.refusal as Refusal
  }

  return {
    chosen,
    example,
    working,
    pencil,
    otherWays,
    beside,
    choose,
    made,
    clear,
    workAnew,
    changeExample,
    reword,
    give,
    showBeside,
  }
})
