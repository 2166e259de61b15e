import { ref, watch } from 'vue'

import { client, type Figure, type Glyph } from '../api/client'
import { useLatest } from '../api/useLatest'

/**
 * The picture that shows why a wrong answer is wrong, and the lines of somebody who comes to it; null while they are
 * asked for.
 */
export function useExposure(
  which: () => { set_id: string; example_id: string; code: string },
  anew: () => unknown = which,
) {
  const figure = ref<Figure | null>(null)
  const lines = ref<Glyph[][] | null>(null)
  const { latest } = useLatest()

  async function load(): Promise<void> {
    figure.value = null
    lines.value = null
    const answer = await latest((signal) =>
      client.GET('/api/sets/{set_id}/examples/{example_id}/misconceptions/{code}/picture', {
        params: { path: which() },
        signal,
      }),
    )
    if (!answer) return // another one is asked for
    if (answer.ok) figure.value = answer.data.figure
    lines.value = answer.ok ? (answer.data.lines as Glyph[][]) : []
  }

  watch(() => [...Object.values(which()), anew()].join(), load, { immediate: true })
  return { figure, lines }
}
