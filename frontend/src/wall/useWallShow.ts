import { useLocalStorage } from '@vueuse/core'
import { computed, onMounted, reactive, ref, shallowRef, watch } from 'vue'
import { useRouter } from 'vue-router'

import { ask, client, type Example, type ExampleSet, type Refusal } from '../api/client'
import { useLatest } from '../api/useLatest'
import { useWays } from '../stores/ways'
import { useReveal } from './useReveal'
import { useWallFigure } from './useWallFigure'

/** What a reload comes back to. */
interface Kept {
  example: string | null
  at: number
  layout: string // "" for the example's own
  light: boolean
}

/** What is on the wall: the example, how far it is uncovered, and what is asked about it. */
export function useWallShow(setId: string, exampleId: string | undefined) {
  const router = useRouter()
  const kept = useLocalStorage<Kept>(`wall ${setId}`, { example: null, at: 0, layout: '', light: false })
  const began = { ...kept.value }
  const set = shallowRef<ExampleSet | null>(null)
  const page = shallowRef<Example | null>(null)
  const chosen = ref<string | null>(null)
  const at = ref(0)
  const layout = ref(began.layout)
  const light = ref(began.light)
  const wrong = ref<{ index: number; resolved: boolean } | null>(null)
  /** Four options to choose from: not shown, asked, or told which one is right. */
  const options = ref<'' | 'asked' | 'told'>('')
  /** All is uncovered, and it was said that the next press goes to the next example. */
  const ending = ref(false)
  const refusal = ref<Refusal | null>(null)

  const working = computed(() => page.value?.working ?? null)
  const examples = computed(() => (set.value?.examples ?? []).filter((item) => !item.unreadable))
  const index = computed(() => examples.value.findIndex((item) => item.id === chosen.value))
  const example = computed(() => examples.value[index.value] ?? null)
  const reveal = useReveal(working, at)
  const ways = useWays()
  const layouts = computed(() => ways.layouts)
  const { presses, done, current, isOpen, isTold } = reveal
  const wrongs = computed(() => working.value?.misconceptions.filter((item) => item.status !== 'hidden') ?? [])
  const item = computed(() => (wrong.value ? (wrongs.value[wrong.value.index] ?? null) : null))
  const picture = useWallFigure(working, current, isOpen, isTold)
  const moment = computed(() => working.value?.sheet?.moments[current.value] ?? null)
  /** What stands on the cover; empty where nothing is covered. */
  const cover = computed(() => {
    if (options.value) return options.value === 'asked' ? 'Which one is right? How do you know?' : ''
    if (item.value) return wrong.value?.resolved ? '' : 'Is this right? How do you know?'
    if (ending.value) return index.value < examples.value.length - 1 ? 'Next example' : 'That was the last example.'
    return done.value ? '' : reveal.asks.value
  })

  watch([chosen, at, layout, light], () => {
    kept.value = { example: chosen.value, at: at.value, layout: layout.value, light: light.value }
  })
  watch(
    () => set.value?.title,
    (title) => (document.title = title ? `${title} · Wall · Keen Slate` : 'Wall · Keen Slate'),
  )

  const { latest } = useLatest()
  async function load(id: string, start: number | 'end'): Promise<void> {
    const query = layout.value ? { layout: layout.value } : {}
    const params = { path: { set_id: setId, example_id: id }, query }
    const answer = await latest((signal) => client.GET('/api/sets/{set_id}/examples/{example_id}', { params, signal }))
    if (!answer) return
    refusal.value = answer.ok ? null : answer.refusal
    if (!answer.ok) return
    page.value = answer.data
    chosen.value = id
    wrong.value = null
    options.value = ''
    ending.value = false
    at.value = start === 'end' ? presses.value.length : Math.min(start, presses.value.length)
    void router.replace({ name: 'wall', params: { setId, exampleId: id } })
  }

  async function go(by: number, start: number | 'end' = 0): Promise<void> {
    const next = examples.value[index.value + by]
    if (next) await load(next.id, start)
  }

  /** Uncover the next line; behind the last one it is said that the next example comes, and then it comes. */
  async function forward(): Promise<void> {
    if (options.value) nextOfChoices()
    else if (wrong.value && !wrong.value.resolved) wrong.value.resolved = true
    else if (wrong.value) wrong.value = null
    else if (!done.value) at.value += 1
    else if (!ending.value) ending.value = true
    else await go(1)
  }

  async function back(): Promise<void> {
    if (options.value) options.value = options.value === 'told' ? 'asked' : ''
    else if (wrong.value) wrong.value = null
    else if (ending.value) ending.value = false
    else if (at.value > 0) at.value -= 1
    else await go(-1, 'end')
  }

  /** The next likely wrong answer as a question; behind the last one, none. */
  function showWrong(): void {
    const next = (wrong.value?.index ?? -1) + 1
    wrong.value = next < wrongs.value.length ? { index: next, resolved: false } : null
  }

  /** The options, then what they tell, then the working again; nothing where the problem has none. */
  function nextOfChoices(): void {
    wrong.value = null
    const next = { '': 'asked', asked: 'told', told: '' } as const
    options.value = working.value?.choices.length ? next[options.value] : ''
  }

  /** Another layout, or the one after that which is shown. */
  async function changeLayout(to?: string): Promise<void> {
    const now = layout.value || working.value?.layout
    const place = layouts.value.findIndex((one) => one.code === now)
    layout.value = to ?? layouts.value[(place + 1) % layouts.value.length]?.code ?? layout.value
    if (chosen.value) await load(chosen.value, at.value)
  }

  function uncover(all: boolean): void {
    at.value = all ? presses.value.length : 0
    ending.value = false
  }

  function drop(): void {
    wrong.value = null
    options.value = ''
  }

  onMounted(async () => {
    void ways.load()
    const answer = await ask(client.GET('/api/sets/{set_id}', { params: { path: { set_id: setId } } }))
    if (!answer.ok) return void (refusal.value = answer.refusal)
    set.value = answer.data
    const wanted = examples.value.find((one) => one.id === (exampleId ?? began.example)) ?? examples.value[0]
    if (wanted) await load(wanted.id, wanted.id === began.example ? began.at : 0)
  })

  return reactive({
    set, chosen, at, layout, layouts, light, wrong, options, refusal, working, examples, index, example, done, current, wrongs, item,
    figure: picture.figure, state: picture.state, moment, cover,
    isOpen, isTold, go, forward, back, showWrong, nextOfChoices, changeLayout, uncover, drop,
  }) // prettier-ignore
}

export type WallShow = ReturnType<typeof useWallShow>
