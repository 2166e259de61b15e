import { useStorage, watchDebounced } from '@vueuse/core'
import { ref, watch } from 'vue'

import { ask, client, type Refusal, type Schemas, type SetSummary } from '../api/client'
import { useLatest } from '../api/useLatest'
import { useTold } from '../parts/useTold'

export type Place = 'shelf' | 'archive' | 'bin'
export type Order = NonNullable<Schemas['ShelfQuery']['order']>
const FELL = { shelf: 'back on the shelf', archive: 'in the archive', bin: 'in the bin' } as const

/** The sets in one place, page by page, and what can be done with them. */
export function useShelf() {
  const sets = ref<SetSummary[] | null>(null)
  const trouble = ref<Refusal | null>(null)
  const place = ref<Place>('shelf')
  const search = ref('')
  const order = useStorage<Order>('keen-slate-order', 'changed')
  const counts = ref<Record<string, number>>({})
  const total = ref(0)
  const tell = useTold()
  const { latest } = useLatest()

  async function load(start = 0): Promise<void> {
    const query = { place: place.value, search: search.value, start, order: order.value }
    const answer = await latest((signal) => client.GET('/api/sets', { params: { query }, signal }))
    if (!answer) return
    if (answer.ok) {
      sets.value = start ? [...(sets.value ?? []), ...answer.data.sets] : answer.data.sets
      counts.value = answer.data.counts
      total.value = answer.data.total
    }
    trouble.value = answer.ok ? null : answer.refusal
  }
  watchDebounced(search, () => load(), { debounce: 150 })
  watch([place, order], () => void load())

  /** Load anew where it was done; say why it was not. */
  async function after(done: Promise<{ ok: true } | { ok: false; refusal: Refusal }>): Promise<boolean> {
    const answer = await done
    if (answer.ok) await load()
    else trouble.value = answer.refusal
    return answer.ok
  }

  async function put(set: SetSummary, to: Place, from: Place | null = place.value): Promise<void> {
    const params = { path: { set_id: set.id } }
    const put = await after(ask(client.PUT('/api/sets/{set_id}/place', { params, body: { place: to } })))
    if (put && from) tell(`${set.title} lies ${FELL[to]} now.`, () => putBack(set, from))
  }
  const putBack = (set: SetSummary, to: Place) => put(set, to, null)

  const duplicate = (set: SetSummary) => {
    const params = { path: { set_id: set.id } }
    const body = { title: `${set.title.slice(0, 110)}, copy` }
    return after(ask(client.POST('/api/sets/{set_id}/copies', { params, body })))
  }
  const emptyBin = () => after(ask(client.DELETE('/api/sets/bin')))

  return { sets, trouble, place, search, order, counts, total, load, put, duplicate, emptyBin }
}
