import type { AnswerEntry } from '../api/client'
import type { Outgoing } from '../api/send'

const MOST = 12

/** What waits in the browser to be sent, in words: changes of sets, then answers. */
export function waitingTexts(kept: Pick<Storage, 'getItem'>): string[] {
  const texts = Object.keys(kept)
    .sort()
    .reverse()
    .flatMap((name) => {
      const said = kept.getItem(name) ?? ''
      if (name.startsWith('keen-slate-change ')) return [ofChange(JSON.parse(said) as Outgoing)]
      if (name.startsWith('keen-slate-answer ')) return [ofAnswer(JSON.parse(said) as AnswerEntry)]
      return []
    })
  return texts.length > MOST ? [...texts.slice(0, MOST), `and ${texts.length - MOST} more`] : texts
}

function ofChange(change: Outgoing): string {
  const body = (change.body ? JSON.parse(change.body) : {}) as { source?: string; problems?: string[]; title?: string }
  const about = body.source ?? body.problems?.join(', ') ?? body.title
  return about ? `for a set: ${about}` : 'a change of a set'
}

function ofAnswer(entry: AnswerEntry): string {
  return entry.written ? `an answer: ${entry.written}` : 'a cell of the answers'
}
