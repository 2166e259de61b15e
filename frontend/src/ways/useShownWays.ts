import { reactive, watch } from 'vue'

import { ask, client, type Schemas } from '../api/client'

type Group = Schemas['ShownQuery']['group']

/** The pieces of working that show the ways of *groups*, drawn in what is chosen now; by the name of their setting. */
export function useShownWays(groups: () => string[], setId: () => string | undefined, chosen: () => unknown) {
  const shown = reactive<Record<string, Schemas['ShownWay'][]>>({})
  let drawnIn = ''
  const asked = new Set<string>()

  async function load(group: string, inWays: string): Promise<void> {
    const query = { group: group as Group, set_id: setId() }
    const answer = await ask(client.GET('/api/ways/shown', { params: { query } }))
    if (inWays !== drawnIn) return
    if (answer.ok) for (const one of answer.data.settings) shown[one.name] = one.ways
    else asked.delete(group)
  }

  // A word or a mark that was changed is seen in all pieces, so what is not looked at now is drawn again when it is.
  watch(
    [() => groups().join(), () => JSON.stringify([setId(), chosen()])],
    ([, inWays]) => {
      if (inWays !== drawnIn) asked.clear()
      drawnIn = inWays
      for (const group of groups().filter((one) => !asked.has(one))) {
        asked.add(group)
        void load(group, inWays)
      }
    },
    { immediate: true },
  )
  return shown
}
