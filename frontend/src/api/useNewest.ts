import { getCurrentScope, onScopeDispose } from 'vue'

import { type Answer, ask, type Call } from './client'

/**
 * One request of a kind at a time, and after it the newest that was asked for meanwhile: for what is quick, and dearer
 * to break off than to wait for. Each answer that arrives is handed to `got`, none after the page is left.
 */
export function useNewest<T>(call: () => Call<T>, got: (answer: Answer<T>) => void) {
  let under = false
  let again = false
  let left = false

  async function renew(): Promise<void> {
    again = true
    if (under) return
    under = true
    while (again && !left) {
      again = false
      const answer = await ask(call())
      if (!left) got(answer)
    }
    under = false
  }

  if (getCurrentScope()) onScopeDispose(() => (left = true))
  return { renew }
}
