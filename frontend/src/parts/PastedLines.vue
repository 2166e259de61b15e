<script setup lang="ts">
import { watchDebounced } from '@vueuse/core'
import Textarea from 'primevue/textarea'
import { ref } from 'vue'

import { ask, type Call, client, type Refusal, type Schemas } from '../api/client'
import { useLatest } from '../api/useLatest'
import ChooseFile from './ChooseFile.vue'
import { asDocument } from './chosenFile'
import limits from './limits.json'
import { textOf } from './textOf'

/** Problems line by line, each judged while it is typed; *lines* are what was found. */
const lines = defineModel<Schemas['BroughtLine'][]>('lines', { required: true })
const props = defineProps<{
  id: string
  /** What the server makes of the text. */
  judge: (text: string, signal: AbortSignal) => Call<Schemas['BroughtOut']>
}>()
const SHEET = 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet'
const text = ref('')
const refusal = ref<Refusal | null>(null)
/** Why a file could not be taken; what is judged meanwhile does not take it away. */
const ofFile = ref<Refusal | null>(null)
const { latest } = useLatest()

watchDebounced(
  text,
  async (now) => {
    const answer = await latest((signal) => props.judge(now, signal))
    if (!answer) return
    lines.value = answer.ok ? answer.data.lines : []
    refusal.value = answer.ok ? null : answer.refusal
  },
  { debounce: 250 },
)

async function fromFile(file: File): Promise<void> {
  ofFile.value = null
  const found = file.name.endsWith('.xlsx') ? await fromSheet(file) : await textOf(file)
  if (found === null) return
  if (found.length <= limits.paste) return void (text.value = found)
  const message = `The file has more than ${limits.paste.toLocaleString('en')} characters.`
  ofFile.value = { message, hint: 'Bring fewer at once.', position: 0, length: 0 }
}

async function fromSheet(file: File): Promise<string | null> {
  const answer = await ask(client.POST('/api/tables', { ...asDocument(file), headers: { 'Content-Type': SHEET } }))
  if (!answer.ok) ofFile.value = answer.refusal
  return answer.ok ? answer.data.text : null
}
</script>

<template>
  <div class="pasted">
    <label :for="id">One problem a line, or a table (CSV, a spreadsheet) with a column called problem.</label>
    <Textarea :id="id" v-model="text" rows="5" spellcheck="false" placeholder="1/2 + 1/3&#10;7 1/4 - 3 5/6 ft" />
    <ChooseFile
      label="Take them from a file"
      accept=".csv,.tsv,.txt,.xlsx,text/csv,text/plain"
      hint="Bring fewer at once."
      @file="fromFile"
      @refused="ofFile = $event"
    />
    <p v-if="ofFile" class="refusal" role="alert">{{ ofFile.message }} {{ ofFile.hint }}</p>
    <p v-if="refusal" class="refusal" role="alert">{{ refusal.message }} {{ refusal.hint }}</p>
    <ol v-if="lines.length" aria-label="What was read">
      <li v-for="line in lines" :key="line.number" :data-verdict="line.verdict">
        <span class="number">{{ line.number }}</span> <span class="text">{{ line.text }}</span>
        <small>{{ line.verdict === 'read' ? 'can be read' : line.why }}</small>
      </li>
    </ol>
  </div>
</template>

<style scoped>
.pasted {
  display: grid;
  gap: 0.5rem;
}
ol {
  max-height: 34vh;
  overflow-y: auto;
  border-top: 1px solid var(--hair);
}
li {
  display: grid;
  grid-template-columns: 2em minmax(8em, auto) 1fr;
  gap: 8px;
  padding: 3px 0;
  border-bottom: 1px solid var(--hair);
  overflow-wrap: anywhere;
}
.number {
  color: var(--ink-quiet);
}
small {
  color: var(--ink-quiet);
  font-size: 0.9rem;
}
li:not([data-verdict='read']) .text {
  color: var(--role-wrong);
}
.refusal {
  color: var(--role-wrong);
}
</style>
