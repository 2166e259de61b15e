import { computed, onMounted, ref } from 'vue'

import { ask, client, type Refusal, type Schemas, type StoryChoices } from '../api/client'
import { download } from '../parts/download'
import { scenarioOptions } from './scenarioOptions'

export type Thing = Schemas['ThingPart']
/** A scenario as the form holds it. */
interface Form {
  code: string
  name: string
  doers: string
  things: Thing[]
}

/** The words that each kind of thing has besides its name. */
export const WORDS: Record<Thing['kind'], (keyof Thing)[]> = {
  piece: ['size', 'use', 'put'],
  stuff: ['where', 'use'],
  doing: ['where'],
}
function written(now: Form): Schemas['ScenarioDocument'] {
  return {
    format: 'keen-slate/scenario',
    version: 1,
    code: now.code,
    name: now.name,
    doers: now.doers
      .split(',')
      .map((one) => one.trim())
      .filter(Boolean),
    things: now.things.map(needed),
  }
}

/** A thing without the words that its kind does not need. */
function needed(thing: Thing): Thing {
  const { kind, name, unit, from, to } = thing
  const kept = Object.fromEntries(WORDS[kind].map((word) => [word, thing[word]]).filter(([, is]) => is))
  return { kind, name, unit, from, to, ...kept } as Thing
}

/** The scenarios for stories, the one on the page as a form, and what becomes of it. */
export function useScenarioForm() {
  const choices = ref<StoryChoices | null>(null)
  const chosen = ref('')
  const form = ref<Form | null>(null)
  const own = ref(false)
  const refusal = ref<Refusal | null>(null)
  const said = ref('')

  const options = computed(() => scenarioOptions(choices.value))

  async function load(): Promise<void> {
    const answer = await ask(client.GET('/api/stories'))
    if (answer.ok) choices.value = answer.data
    else refusal.value = answer.refusal
  }

  function show(code: string): void {
    chosen.value = code
    const found = choices.value?.scenarios.find((one) => one.document.code === code)
    if (!found) return
    own.value = found.own
    take(found.document)
  }

  /** What a document holds, in the form. */
  function take(document: Record<string, unknown>): void {
    form.value = {
      code: String(document.code ?? ''),
      name: String(document.name ?? ''),
      doers: ((document.doers ?? []) as string[]).join(', '),
      things: ((document.things ?? []) as Thing[]).map((thing) => ({ ...thing })),
    }
    refusal.value = null
    said.value = ''
  }

  /** The scenario on the page as the beginning of one's own. */
  function copy(): void {
    if (!form.value) return
    own.value = true
    form.value.code = `own-${Date.now().toString(36)}`
    form.value.name = `${form.value.name}, mine`
    said.value = 'A copy: change it, then keep it.'
  }

  async function keep(): Promise<void> {
    if (!form.value) return
    const body = written(form.value)
    const answer = await ask(
      client.PUT('/api/stories/scenarios/{code}', { params: { path: { code: body.code } }, body }),
    )
    refusal.value = answer.ok ? null : answer.refusal
    if (!answer.ok) return
    await load()
    show(body.code)
    said.value = 'Kept.'
  }

  async function remove(): Promise<void> {
    if (!form.value) return
    const path = { code: form.value.code }
    const answer = await ask(client.DELETE('/api/stories/scenarios/{code}', { params: { path } }))
    if (!answer.ok) return void (refusal.value = answer.refusal)
    await load()
    show(String(choices.value?.scenarios[0]?.document.code ?? ''))
    said.value = 'Taken away. Stories that were told with it stay.'
  }

  function save(): void {
    if (!form.value) return
    download(JSON.stringify(written(form.value), null, 1), `${form.value.code}.json`, 'application/json')
  }

  async function bring(file: File): Promise<void> {
    try {
      const document = JSON.parse(await file.text()) as Record<string, unknown>
      take(document)
      own.value = true
      if (!form.value?.code) form.value!.code = `own-${Date.now().toString(36)}`
      said.value = 'Brought in: look it through, then keep it.'
    } catch {
      refusal.value = {
        message: 'The file is not JSON.',
        position: 0,
        length: 0,
        hint: 'Choose a scenario that was saved here.',
      }
    }
  }

  function addThing(): void {
    form.value?.things.push({
      kind: 'piece',
      name: '',
      unit: 'm',
      from: '1/4',
      to: 10,
      size: 'long',
      use: 'cut',
      put: 'tie',
    })
  }

  onMounted(async () => {
    await load()
    show(String(choices.value?.scenarios[0]?.document.code ?? ''))
  })
  return { choices, chosen, form, own, refusal, said, options, show, copy, keep, remove, save, bring, addThing }
}
