import { ref } from 'vue'
import { useRouter } from 'vue-router'

import { type Answer, ask, client, type ExampleSet, type Refusal, type Schemas } from '../api/client'
import { asDocument } from '../parts/chosenFile'

/** Begin a new set in one of several ways, and go to it; why not, where it is refused. */
export function useBegin() {
  const router = useRouter()
  const busy = ref(false)
  const refusal = ref<Refusal | null>(null)

  async function go(made: Promise<Answer<ExampleSet>>): Promise<void> {
    busy.value = true
    const answer = await made
    busy.value = false
    refusal.value = answer.ok ? null : answer.refusal
    if (answer.ok) await router.push({ name: 'bench', params: { setId: answer.data.id } })
  }

  const empty = (title: string) => go(ask(client.POST('/api/sets', { body: { title } })))
  const bring = (file: File) => go(ask(client.POST('/api/sets/bring', asDocument(file))))
  const start = (wanted: Partial<Schemas['StartIn']>) => {
    const body = { problems: [], seed: Math.floor(Math.random() * 2 ** 31), ...wanted }
    return go(ask(client.POST('/api/starts', { body })))
  }
  return { busy, refusal, empty, bring, start }
}
