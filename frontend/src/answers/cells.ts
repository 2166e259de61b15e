import type { AnswerCell } from '../api/client'

/** The sign that stands in a cell beside its colour. */
export const SIGNS: Record<AnswerCell['said'], string> = {
  right: '',
  'right-value': '≈',
  explained: '',
  unexplained: '?',
  unreadable: '!',
  blank: '–',
  away: 'away',
}

/** What a screen reader says of a cell, after the answer itself. */
export const SAID: Record<AnswerCell['said'], string> = {
  right: 'right',
  'right-value': 'right value, wrong form',
  explained: 'explained',
  unexplained: 'not explained',
  unreadable: 'not readable',
  blank: 'blank',
  away: 'away',
}

/** How a day is written. */
export function dayOf(day: string): string {
  return new Date(`${day}T12:00`).toLocaleDateString('en-GB', { day: 'numeric', month: 'long' })
}

export const KINDS: { code: 'board' | 'quiz' | 'homework' | 'warm-up'; name: string }[] = [
  { code: 'quiz', name: 'quiz' },
  { code: 'homework', name: 'homework' },
  { code: 'board', name: 'on the board' },
  { code: 'warm-up', name: 'warm-up' },
]

/** What a kind of sitting is called. */
export const kindOf = (code: string): string => KINDS.find((one) => one.code === code)?.name ?? code

/** Today by the teacher's calendar. */
export function today(): string {
  const now = new Date()
  const two = (n: number) => String(n).padStart(2, '0')
  return `${now.getFullYear()}-${two(now.getMonth() + 1)}-${two(now.getDate())}`
}

/** What those of a group hold. */
export const heldBy = (group: { names: string[] }): string => group.names.join(', and ') || 'ready to go on'
