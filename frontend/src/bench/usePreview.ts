import { useDebounceFn } from '@vueuse/core'
import { ref, shallowReadonly, shallowRef, watch } from 'vue'

import { client, type Refusal, type Schemas } from '../api/client'
import { useLatest } from '../api/useLatest'

const PAUSE = 150 // milliseconds: shorter than a pause for thought, longer than between two keys

/** What the core makes of *text*, in the class's *ways*, while it is typed: how it is read, or a refusal. */
export function usePreview(text: () => string, ways: () => Record<string, string>) {
  const preview = shallowRef<Schemas['PreviewOut'] | null>(null)
  const refusal = ref<Refusal | null>(null)
  const { latest, drop } = useLatest()

  function clear(): void {
    drop()
    preview.value = refusal.value = null
  }

  async function look(): Promise<void> {
    const answer = await latest((signal) =>
      client.POST('/api/preview', { body: { text: text(), ways: ways() }, signal }),
    )
    if (!answer) return
    preview.value = answer.ok ? answer.data : null
    refusal.value = answer.ok ? null : answer.refusal
  }

  const soon = useDebounceFn(() => (text().trim() ? look() : undefined), PAUSE)
  watch(text, (now) => (now.trim() ? void soon() : clear()), { immediate: true })

  return { preview: shallowReadonly(preview), refusal, clear }
}
