import { computed, onScopeDispose, reactive, ref, shallowRef } from 'vue'

import { type AnswerCell, ask, client, type AnswerEntry, type Refusal, type Schemas, type Sitting } from '../api/client'
import { outboxOf } from './outbox'
import { oneAtATime } from '../parts/oneAtATime'

type Row = (AnswerCell | null)[]
type Changes = Schemas['ChangesOut']

const LOOK = 1500 // milliseconds until what others entered is asked for
const AGAIN = 3000 // milliseconds until what was not taken is sent again
const MOST_UNDONE = 100

/** Entries that would bring cells back to what they are now. */
type Undo = AnswerEntry[]

/**
 * A sitting on the screen. What is entered stands in its cell at once, goes out one bundle after the other, and comes
 * back judged; what others enter is asked for between. All of it runs in one queue, so no answer overtakes another.
 */
export function useSitting(sittingId: string) {
  const sitting = shallowRef<Sitting | null>(null)
  const rows = reactive(new Map<string, Row>())
  const pending = reactive(new Map<string, AnswerEntry>())
  const tally = shallowRef<Schemas['TallyView'] | null>(null)
  const refusal = ref<Refusal | null>(null)
  const savedAt = ref<Date | null>(null)
  const undone = ref<Undo[]>([])
  const changed = ref(0) // counts what came back, so that what rests on it is asked for again
  const outbox = outboxOf(sittingId)
  const params = { path: { sitting_id: sittingId } }
  let counter = 0
  const inTurn = oneAtATime()
  let open = true

  const keyOf = (pupil: string, number: number) => `${pupil} ${number}`
  const saving = computed(() => (refusal.value ? 'not saved' : pending.size ? 'saving' : 'saved'))

  async function load(): Promise<void> {
    const answer = await ask(client.GET('/api/sittings/{sitting_id}', { params }))
    if (!answer.ok) return void (refusal.value = answer.refusal)
    refusal.value = null
    show(answer.data)
    const waiting = outbox.waiting()
    if (waiting.length) enter(waiting, false)
  }

  function show(found: Sitting): void {
    sitting.value = found
    counter = found.counter
    tally.value = found.tally
    const empty = found.questions.map(() => null)
    rows.clear()
    for (const pupil of found.pupils) rows.set(pupil.id, [...empty])
    for (const cell of found.cells) rows.get(cell.pupil_id)?.splice(cell.number, 1, cell)
    changed.value += 1
  }

  function take(changes: Changes): void {
    counter = changes.counter
    if (changes.tally) tally.value = changes.tally
    const places = [
      ...changes.cells.map((cell) => ({ ...cell, cell })),
      ...changes.gone.map((place) => ({ ...place, cell: null })),
    ]
    for (const { pupil_id, number, cell } of places) {
      const row = rows.get(pupil_id)
      if (row) rows.set(pupil_id, row.toSpliced(number, 1, cell))
    }
    if (places.length) changed.value += 1
  }

  /** Enter cells; undoing takes all of them back at once. */
  function enter(entries: AnswerEntry[], undoable = true): void {
    if (!entries.length) return
    if (undoable) undone.value = [...undone.value, entries.map(before)].slice(-MOST_UNDONE)
    for (const entry of entries) {
      pending.set(keyOf(entry.pupil_id, entry.number), entry)
      outbox.put(entry)
    }
    void inTurn(send)
  }

  /** What would bring a cell back to what it is now. */
  function before(entry: AnswerEntry): AnswerEntry {
    const waiting = pending.get(keyOf(entry.pupil_id, entry.number))
    if (waiting) return waiting
    const cell = rows.get(entry.pupil_id)?.[entry.number]
    const at = { pupil_id: entry.pupil_id, number: entry.number }
    return cell ? { ...at, written: cell.written, word: cell.word, gone: false } : { ...at, written: null, gone: true }
  }

  async function send(): Promise<void> {
    const entries = [...pending.values()]
    if (!entries.length || !open) return
    const answer = await ask(
      client.PUT('/api/sittings/{sitting_id}/answers', { params, body: { entries, since: counter } }),
    )
    if (!answer.ok) {
      refusal.value = answer.refusal
      if (answer.status === 422) return drop(entries)
      window.setTimeout(() => void inTurn(send), AGAIN)
      return
    }
    refusal.value = null
    savedAt.value = new Date()
    take(answer.data)
    drop(entries)
    if (pending.size) await send()
  }

  /** These are done with; a newer entry of the same cell stays. */
  function drop(entries: AnswerEntry[]): void {
    for (const entry of entries) {
      outbox.taken(entry)
      const key = keyOf(entry.pupil_id, entry.number)
      if (pending.get(key) === entry) pending.delete(key)
    }
  }

  function undo(): void {
    const entries = undone.value.at(-1)
    if (!entries) return
    undone.value = undone.value.slice(0, -1)
    enter(entries, false)
  }

  async function look(): Promise<void> {
    if (!open || document.hidden || !sitting.value || pending.size) return
    const query = { since: counter }
    const answer = await ask(client.GET('/api/sittings/{sitting_id}/changes', { params: { ...params, query } }))
    if (answer.ok && !pending.size) take(answer.data)
  }

  /** Another day, another kind, or whether units count. */
  async function change(body: Schemas['SittingChange']): Promise<void> {
    const answer = await inTurn(() => ask(client.PATCH('/api/sittings/{sitting_id}', { params, body })))
    if (answer.ok) show(answer.data)
    refusal.value = answer.ok ? null : answer.refusal
  }

  const timer = window.setInterval(() => void inTurn(look), LOOK)
  onScopeDispose(() => {
    open = false
    window.clearInterval(timer)
  })

  return { sitting, rows, pending, tally, refusal, saving, savedAt, undone, changed, keyOf, load, enter, undo, change }
}

export type SittingDesk = ReturnType<typeof useSitting>
