import { ref, watch } from 'vue'

import { ask, client, type Figure } from '../api/client'

/** The picture that shows why a wrong answer is wrong; an answer that comes late never replaces a later one. */
export function useExposure(which: () => { set_id: string; example_id: string; code: string }, anew: () => unknown = which) {
  const figure = ref<Figure | null>(null)
  let asked = 0

  async function load(): Promise<void> {
    figure.value = null
    const mine = ++asked
    const answer = await ask(
      client.GET('/api/sets/{set_id}/examples/{example_id}/misconceptions/{code}/picture', { params: { path: which() } }),
    )
    if (answer.ok && mine === asked) figure.value = answer.data.figure
  }

  watch(() => [...Object.values(which()), anew()].join(), load, { immediate: true })
  return figure
}
