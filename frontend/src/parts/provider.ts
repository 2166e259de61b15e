import { ask, type Answer, type Call, type Schemas } from '../api/client'

/**
 * The way to the school's own sign-in and back: what it is for is kept in this tab, with the state that must come back.
 */
export interface Errand {
  state: string
  /** Coming in, joining by an invitation, or coming in so from now on. */
  what: 'sign-in' | 'join' | 'add'
  /** The invitation, and the name that its teacher gives herself. */
  link?: string
  name?: string
}

const KEPT = 'keen-slate-errand'

/** Go there; the answer is a refusal where that cannot be. */
export async function goThere(
  asked: Call<Schemas['ProviderOut']>,
  errand: Omit<Errand, 'state'>,
): Promise<Answer<unknown>> {
  const answer = await ask(asked)
  if (!answer.ok) return answer
  sessionStorage.setItem(KEPT, JSON.stringify({ ...errand, state: answer.data.state }))
  window.location.assign(answer.data.address)
  return answer
}

/** What this tab went there for, once; null where it never did, or another state comes back. */
export function errandOf(state: string): Errand | null {
  const kept = sessionStorage.getItem(KEPT)
  sessionStorage.removeItem(KEPT)
  const errand = kept ? (JSON.parse(kept) as Errand) : null
  return errand?.state === state ? errand : null
}
