import type { AnswerEntry } from '../api/client'

/**
 * Entries that the server has not taken yet, kept in the browser cell by cell, so that a reload at any moment loses
 * none; another tab's stand beside them. What is being typed is kept as well.
 */
export function outboxOf(sittingId: string) {
  const start = `keen-slate-answer ${sittingId} `
  const keyOf = (entry: Pick<AnswerEntry, 'pupil_id' | 'number'>) => `${start}${entry.pupil_id} ${entry.number}`

  /** Every entry that waits. */
  function waiting(): AnswerEntry[] {
    return Object.keys(localStorage)
      .filter((key) => key.startsWith(start))
      .map((key) => JSON.parse(localStorage.getItem(key) ?? 'null') as AnswerEntry | null)
      .filter((entry): entry is AnswerEntry => entry !== null)
  }

  function put(entry: AnswerEntry): void {
    localStorage.setItem(keyOf(entry), JSON.stringify(entry))
  }

  /** Take an entry out, unless another one of its cell has come meanwhile. */
  function taken(entry: AnswerEntry): void {
    if (localStorage.getItem(keyOf(entry)) === JSON.stringify(entry)) localStorage.removeItem(keyOf(entry))
  }

  return { waiting, put, taken }
}
