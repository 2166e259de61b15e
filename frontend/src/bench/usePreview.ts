import { onScopeDispose, readonly, ref, watch } from 'vue'

import { ask, client, type Refusal, type Working } from '../api/client'

const PAUSE = 120 // milliseconds: shorter than a pause for thought, longer than between two keys

/** What the core makes of *text*, in the class's *ways*, while it is typed: a working, or a refusal; late answers are dropped. */
export function usePreview(text: () => string, ways: () => Record<string, string>) {
  const working = ref<Working | null>(null)
  const refusal = ref<Refusal | null>(null)
  let timer = 0
  let asked = 0

  function clear(): void {
    working.value = refusal.value = null
  }

  async function look(): Promise<void> {
    const mine = ++asked
    const answer = await ask(client.POST('/api/work', { body: { text: text(), ways: ways() } }))
    if (mine !== asked) return
    working.value = answer.ok ? answer.data : null
    refusal.value = answer.ok ? null : answer.refusal
  }

  watch(text, (now) => {
    window.clearTimeout(timer)
    if (now.trim()) timer = window.setTimeout(look, PAUSE)
    else {
      asked++
      clear()
    }
  }, { immediate: true })
  onScopeDispose(() => window.clearTimeout(timer))

  return { working: readonly(working), refusal, clear }
}
