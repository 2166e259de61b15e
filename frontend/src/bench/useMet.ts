import { ref, watch } from 'vue'

import { client, type Schemas } from '../api/client'
import { useLatest } from '../api/useLatest'

/** How many of a teacher's pupils showed each misconception when it last could be seen, by its code. */
export function useMet(setId: () => string | undefined) {
  const met = ref<Record<string, Schemas['MetOut']>>({})
  const { latest } = useLatest()

  watch(
    setId,
    async (id) => {
      if (!id) return
      const answer = await latest((signal) =>
        client.GET('/api/sets/{set_id}/met', { params: { path: { set_id: id } }, signal }),
      )
      if (answer?.ok) met.value = Object.fromEntries(answer.data.met.map((one) => [one.code, one]))
    },
    { immediate: true },
  )
  return met
}
