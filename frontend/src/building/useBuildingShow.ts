import { useLocalStorage } from '@vueuse/core'
import { computed, onMounted, reactive, ref } from 'vue'

import { ask, type Built, client, type Refusal } from '../api/client'

/** Number building on the wall: what is to be built, then way after way, each line by line. */
export function useBuildingShow(numbers: string, wanted: string) {
  const built = ref<Built | null>(null)
  const refusal = ref<Refusal | null>(null)
  const at = ref(0)
  const light = useLocalStorage('number building, light', false)

  /** What each press shows: a way (from 0) with so many of its lines; first that there is none, where there is none. */
  const presses = computed(() => {
    const { exact, ways } = built.value ?? { exact: true, ways: [] }
    const shown = ways.flatMap((way, i) =>
      [0, ...way.lines.map((_, line) => line + 1)].map((lines) => ({ way: i, lines })),
    )
    return exact ? shown : [{ way: -1, lines: 0 }, ...shown]
  })
  const press = computed(() => presses.value[at.value - 1] ?? null)
  const done = computed(() => at.value >= presses.value.length)
  const way = computed(() => built.value?.ways[press.value?.way ?? -1] ?? null)
  const lines = computed(() => way.value?.lines.slice(0, press.value?.lines) ?? [])
  /** That it cannot be built is known from the first press on. */
  const impossible = computed(() => at.value > 0 && built.value?.exact === false)
  const asks = computed(() => {
    if (!built.value || done.value) return ''
    const next = presses.value[at.value]
    if (at.value === 0) return 'How would you build it?'
    return next?.lines === 0 ? 'Is there another way?' : 'What would you write next?'
  })

  function forward(): void {
    if (!done.value) at.value += 1
  }
  function back(): void {
    if (at.value > 0) at.value -= 1
  }
  /** The first press of the next way (or of the one before this). */
  function go(by: 1 | -1): void {
    const now = press.value?.way ?? -1
    const place = presses.value.findIndex((one) => one.way === now + by && one.lines === 0)
    at.value = place < 0 ? (by > 0 ? presses.value.length : 0) : place + 1
  }
  function uncover(all: boolean): void {
    at.value = all ? presses.value.length : 0
  }

  onMounted(async () => {
    document.title = 'Number building · Wall · Keen Slate'
    const answer = await ask(client.POST('/api/building', { body: { numbers, wanted } }))
    if (answer.ok) built.value = answer.data
    else refusal.value = answer.refusal
  })

  return reactive({ built, refusal, at, light, press, done, way, lines, impossible, asks, forward, back, go, uncover })
}
