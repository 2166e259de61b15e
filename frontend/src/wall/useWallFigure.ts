import { computed, nextTick, type Ref, ref, watch } from 'vue'

import type { Figure, Working } from '../api/client'

/**
 * The picture beside the line in hand, and its state. While the blanks of a line are open, it would tell what belongs in them. Where a
 * calculation of a story begins, its model is shown; it keeps its question mark until the answer is told.
 */
export function useWallFigure(
  working: Ref<Working | null>,
  current: Ref<number>,
  isOpen: (line: number) => boolean,
  isTold: (part: 'model' | 'sentence') => boolean,
) {
  const state = ref<'before' | 'after'>('after')

  const figure = computed<Figure | null>(() => {
    const shown = working.value
    if (!shown || shown.boxes.length || isOpen(current.value)) return null
    const step = shown.sheet ? (shown.sheet.moments[current.value]?.step ?? -1) : current.value
    return (isTold('sentence') ? null : shown.steps[step]?.figure) ?? modelAt(step)
  })
  const asks = computed(() => !isTold('sentence') && isModel(figure.value))

  function modelAt(step: number): Figure | null {
    const story = working.value?.story
    if (!story || !isTold('model')) return null
    if (isTold('sentence')) return story.calculations.at(-1)?.model ?? null
    const part = story.calculations.find((one) => one.first_step === step + 1)
    return part && !part.model_hidden ? part.model : null
  }

  function isModel(shown: Figure | null): boolean {
    return !!working.value?.story?.calculations.some((one) => one.model === shown)
  }

  watch(
    [figure, asks],
    async ([now]) => {
      if (!now?.acts) return
      state.value = 'before'
      if (asks.value) return
      await nextTick()
      setTimeout(() => (state.value = asks.value ? 'before' : 'after'), 700)
    },
    { immediate: true },
  )

  return { figure, state }
}
