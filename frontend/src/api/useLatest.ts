import { getCurrentScope, onScopeDispose } from 'vue'

import { type Answer, ask, type Call } from './client'

/**
 * One request of a kind at a time: a new one aborts the one before it, and leaving the page aborts it too. `latest`
 * hands back null for a request that a newer one has taken the place of, so a late answer never replaces a newer one.
 */
export function useLatest() {
  let now: AbortController | null = null

  async function latest<T>(call: (signal: AbortSignal) => Call<T>): Promise<Answer<T> | null> {
    drop()
    const mine = (now = new AbortController())
    const answer = await ask(call(mine.signal))
    return mine.signal.aborted ? null : answer
  }

  /** Nothing that is under way is needed any more. */
  function drop(): void {
    now?.abort()
  }

  if (getCurrentScope()) onScopeDispose(drop)
  return { latest, drop }
}
