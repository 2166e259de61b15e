import { onBeforeUnmount, onMounted, ref, watch } from 'vue'

import { ask, client } from '../api/client'

const SAVED_EVERY = 10

/** Counts the seconds that an example is on the wall, and logs them in the set; hidden pages do not count. */
export function useTimer(setId: () => string, exampleId: () => string | null) {
  const seconds = ref(0)
  let unsaved = 0
  let ticking: ReturnType<typeof setInterval> | undefined

  async function save(id: string | null): Promise<void> {
    if (!id || !unsaved) return
    const [spent, now] = [unsaved, new Date()]
    unsaved = 0
    const day = [now.getFullYear(), now.getMonth() + 1, now.getDate()].map((n) => String(n).padStart(2, '0')).join('-')
    const path = { set_id: setId(), example_id: id }
    const answer = await ask(
      client.POST('/api/sets/{set_id}/examples/{example_id}/time', { params: { path }, body: { day, seconds: spent } }),
    )
    if (!answer.ok) unsaved += spent
  }

  function tick(): void {
    if (document.hidden || !exampleId()) return
    seconds.value += 1
    unsaved += 1
    if (unsaved >= SAVED_EVERY) void save(exampleId())
  }

  watch(exampleId, (_now, before) => {
    void save(before ?? null)
    seconds.value = 0
  })
  onMounted(() => (ticking = setInterval(tick, 1000)))
  onBeforeUnmount(() => {
    clearInterval(ticking)
    void save(exampleId())
  })
  return { seconds }
}
