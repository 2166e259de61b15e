<script setup lang="ts">
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import Select from 'primevue/select'
import { computed, onMounted, ref } from 'vue'

import { ask, client, type Refusal, type Schemas, type StoryChoices } from '../api/client'
import ChooseFile from '../parts/ChooseFile.vue'
import { download } from '../parts/download'
import limits from '../parts/limits.json'
import { scenarioOptions } from '../story/scenarioOptions'
import PageHead from '../parts/PageHead.vue'

type Thing = Schemas['ThingPart']
/** A scenario as the form holds it. */
interface Form {
  code: string
  name: string
  doers: string
  things: Thing[]
}

const choices = ref<StoryChoices | null>(null)
const chosen = ref('')
const form = ref<Form | null>(null)
const own = ref(false)
const refusal = ref<Refusal | null>(null)
const said = ref('')

const KINDS = [
  { code: 'piece', name: 'a piece' },
  { code: 'stuff', name: 'stuff' },
  { code: 'doing', name: 'a doing' },
]
const options = computed(() => scenarioOptions(choices.value))
/** The words that each kind of thing has besides its name. */
const WORDS: Record<Thing['kind'], (keyof Thing)[]> = {
  piece: ['size', 'use', 'put'],
  stuff: ['where', 'use'],
  doing: ['where'],
}
/** The fields of a row that are written in words, with the width of each. */
const WRITTEN = [
  { key: 'where', said: 'Where', width: '' },
  { key: 'use', said: 'Verb of taking of', width: 'verb' },
  { key: 'put', said: 'Verb of adding of', width: 'verb' },
] as const
const SIZES = [
  { key: 'from', said: 'Least' },
  { key: 'to', said: 'Most' },
] as const

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

async function keep(): Promise<void> {
  if (!form.value) return
  const body = written(form.value)
  const answer = await ask(client.PUT('/api/stories/scenarios/{code}', { params: { path: { code: body.code } }, body }))
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
  document.title = 'Scenarios · Keen Slate'
  await load()
  show(String(choices.value?.scenarios[0]?.document.code ?? ''))
})
</script>

<template>
  <main class="order">
    <PageHead title="Scenarios for stories" />
    <section class="sheet on-paper">
      <p class="acts">
        <label for="which">Scenario</label>
        <Select
          :model-value="chosen"
          input-id="which"
          :options="options"
          option-label="name"
          option-value="code"
          @update:model-value="show"
        />
        <Button label="Copy it and change the copy" variant="outlined" @click="copy" />
        <Button label="Save as a file" variant="outlined" @click="save" />
        <ChooseFile
          label="Bring one in"
          accept=".json,application/json"
          hint="A scenario takes a few kB."
          @file="bring"
          @refused="refusal = $event"
        />
      </p>
      <p class="quiet">
        A piece has a size (a plank), stuff fills a place (gravel), a doing is done (walk). From and to say how much of
        it there can be.
      </p>
      <form v-if="form" @submit.prevent="keep">
        <p class="acts">
          <label for="name">Name</label>
          <InputText id="name" v-model="form.name" :maxlength="limits.title" :disabled="!own" />
          <label for="doers">Who does something</label>
          <InputText id="doers" v-model="form.doers" class="wide" :disabled="!own" />
        </p>
        <div class="scroll">
          <table>
            <thead>
              <tr>
                <th scope="col">What it is</th>
                <th scope="col">Name, or verb</th>
                <th scope="col">Unit</th>
                <th scope="col">From</th>
                <th scope="col">To</th>
                <th scope="col">Size word</th>
                <th scope="col">Where</th>
                <th scope="col">Verb of taking</th>
                <th scope="col">Verb of adding</th>
                <th v-if="own"><span class="sr-only">Take away</span></th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="(thing, i) in form.things" :key="i">
                <template v-if="own">
                  <td>
                    <Select
                      v-model="thing.kind"
                      :options="KINDS"
                      option-label="name"
                      option-value="code"
                      :aria-label="`What thing ${i + 1} is`"
                    />
                  </td>
                  <td><InputText v-model="thing.name" :aria-label="`Name of thing ${i + 1}`" /></td>
                  <td>
                    <Select
                      v-model="thing.unit"
                      :options="choices?.units ?? []"
                      :aria-label="`Unit of thing ${i + 1}`"
                    />
                  </td>
                  <td v-for="field in SIZES" :key="field.key">
                    <InputText
                      :model-value="String(thing[field.key])"
                      class="short"
                      :aria-label="`${field.said} of thing ${i + 1}`"
                      @update:model-value="thing[field.key] = $event ?? ''"
                    />
                  </td>
                  <td>
                    <Select
                      v-if="thing.kind === 'piece'"
                      v-model="thing.size"
                      :options="choices?.sizes ?? []"
                      :aria-label="`Size word of thing ${i + 1}`"
                    />
                  </td>
                  <td v-for="field in WRITTEN" :key="field.key">
                    <InputText
                      v-if="WORDS[thing.kind].includes(field.key)"
                      v-model="thing[field.key]"
                      :class="field.width"
                      :aria-label="`${field.said} thing ${i + 1}${field.key === 'where' ? ' is' : ''}`"
                    />
                  </td>
                  <td>
                    <Button class="word" :aria-label="`Take thing ${i + 1} away`" @click="form.things.splice(i, 1)">
                      ×
                    </Button>
                  </td>
                </template>
                <template v-else>
                  <td>{{ thing.kind }}</td>
                  <td>{{ thing.name }}</td>
                  <td>{{ thing.unit }}</td>
                  <td>{{ thing.from }}</td>
                  <td>{{ thing.to }}</td>
                  <td>{{ thing.size }}</td>
                  <td>{{ thing.where }}</td>
                  <td>{{ thing.use }}</td>
                  <td>{{ thing.put }}</td>
                </template>
              </tr>
            </tbody>
          </table>
        </div>
        <p v-if="own" class="acts">
          <Button label="Add a thing" variant="outlined" @click="addThing" />
          <Button label="Keep this scenario" type="submit" />
          <Button label="Take it away" variant="outlined" @click="remove" />
        </p>
      </form>
      <p role="status" class="quiet">{{ said }}</p>
      <p v-if="refusal" class="refusal" role="alert">{{ refusal.message }} {{ refusal.hint }}</p>
    </section>
  </main>
</template>

<style scoped src="../styles/order.css"></style>
<style scoped>
.scroll {
  overflow-x: auto;
}
table {
  border-collapse: collapse;
  width: 100%;
}
th,
td {
  text-align: left;
  padding: 3px 8px 3px 0;
  border-bottom: 1px solid var(--hair);
  font-size: 0.95rem;
}
th {
  font-size: 0.85rem;
  color: var(--ink-quiet);
}
td :deep(.p-inputtext) {
  width: 8.4rem;
}
td :deep(.p-inputtext.short) {
  width: 4.2rem;
}
td :deep(.p-inputtext.verb) {
  width: 5.6rem;
}
.wide {
  width: 24rem;
  max-width: 100%;
}
</style>
