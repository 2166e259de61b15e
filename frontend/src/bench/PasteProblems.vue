<script setup lang="ts">
import Button from 'primevue/button'
import Dialog from 'primevue/dialog'
import { computed, ref, watch } from 'vue'

import { ask, client, type Refusal, type Schemas } from '../api/client'
import { useLatest } from '../api/useLatest'
import { asDocument, chosenFile } from '../parts/chosenFile'
import limits from '../parts/limits.json'
import { useBench } from '../stores/bench'

const visible = defineModel<boolean>('visible', { required: true })
const SHEET = 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet'
const bench = useBench()
const text = ref('')
const lines = ref<Schemas['BroughtLine'][]>([])
const refusal = ref<Refusal | null>(null)
/** Why a file could not be taken; what is judged meanwhile does not take it away. */
const ofFile = ref<Refusal | null>(null)
const good = computed(() => lines.value.filter((line) => line.verdict === 'read'))
const word = computed(() => {
  if (good.value.length === lines.value.length) return 'Put them on the ladder'
  return good.value.length === 1
    ? 'Put the good one on the ladder'
    : `Put the ${good.value.length} good ones on the ladder`
})

// Each line is judged as it is typed.
const { latest } = useLatest()
let waiting: ReturnType<typeof setTimeout> | undefined
watch(text, () => {
  clearTimeout(waiting)
  waiting = setTimeout(judge, 250)
})

async function judge(): Promise<void> {
  if (!bench.set) return
  const params = { path: { set_id: bench.set.id } }
  const answer = await latest((signal) =>
    client.POST('/api/sets/{set_id}/judge', { params, body: { text: text.value }, signal }),
  )
  if (!answer) return
  lines.value = answer.ok ? answer.data.lines : []
  refusal.value = answer.ok ? null : answer.refusal
}

async function fromFile(event: Event): Promise<void> {
  const chosen = chosenFile(event, 'Bring fewer at once.')
  ofFile.value = chosen.refusal ?? null
  if (!chosen.file) return
  const found = chosen.file.name.endsWith('.xlsx') ? await fromSheet(chosen.file) : await chosen.file.text()
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

async function take(): Promise<void> {
  const refused = await bench.take(good.value.map((line) => line.text))
  refusal.value = refused
  if (refused) return
  visible.value = false
  text.value = ''
  lines.value = []
}
</script>

<template>
  <Dialog v-model:visible="visible" modal header="Bring in problems" :closable="false" dismissable-mask>
    <div class="bring">
      <label for="brought">One problem a line, or a table (CSV, a spreadsheet) with a column called problem.</label>
      <textarea id="brought" v-model="text" rows="6" spellcheck="false" placeholder="1/2 + 1/3&#10;7 1/4 - 3 5/6 ft" />
      <label class="file"
        >Take them from a file <input type="file" accept=".csv,.tsv,.txt,.xlsx,text/csv,text/plain" @change="fromFile"
      /></label>
      <p v-if="ofFile" class="refusal" role="alert">{{ ofFile.message }} {{ ofFile.hint }}</p>
      <p v-if="refusal" class="refusal" role="alert">{{ refusal.message }} {{ refusal.hint }}</p>
      <ol v-if="lines.length" aria-label="What was read">
        <li v-for="line in lines" :key="line.number" :data-verdict="line.verdict">
          <span class="number">{{ line.number }}</span> <span class="text">{{ line.text }}</span>
          <small>{{ line.verdict === 'read' ? 'can be read' : line.why }}</small>
        </li>
      </ol>
      <p class="ways">
        <Button :disabled="!good.length" :label="word" @click="take" />
        <Button label="Leave it" variant="outlined" @click="visible = false" />
      </p>
    </div>
  </Dialog>
</template>

<style scoped>
.bring {
  display: grid;
  gap: 0.6rem;
  width: min(34rem, 84vw);
}
textarea {
  font: inherit;
  color: var(--ink);
  background: #fff;
  border: 1px solid #8496a0;
  border-radius: 2px;
  padding: 4px 8px;
  width: 100%;
}
textarea:focus-visible {
  outline: 3px solid var(--focus-on-paper);
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
.ways {
  display: flex;
  gap: 0.8rem;
}
</style>
