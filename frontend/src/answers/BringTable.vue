<script setup lang="ts">
import Button from 'primevue/button'
import Dialog from 'primevue/dialog'
import Select from 'primevue/select'
import Textarea from 'primevue/textarea'
import { computed, ref } from 'vue'

import { ask, client, type AnswerEntry, type Refusal, type Schemas } from '../api/client'
import ChooseFile from '../parts/ChooseFile.vue'
import limits from '../parts/limits.json'
import { textOf } from '../parts/textOf'
import type { SittingDesk } from './useSitting'

const props = defineProps<{ desk: SittingDesk }>()
const emit = defineEmits<{ done: [] }>()
const text = ref('')
const table = ref<Schemas['BroughtTable'] | null>(null)
const chosen = ref<Record<number, string | null>>({})
const refusal = ref<Refusal | null>(null)

const sitting = computed(() => props.desk.sitting.value)
const pupils = computed(() => [
  { id: null as string | null, alias: 'leave this line out' },
  ...(sitting.value?.pupils ?? []).map((one) => ({ id: one.id as string | null, alias: one.alias })),
])
/** A line is taken where a pupil is chosen for it. */
const taken = computed(() => (table.value?.rows ?? []).filter((row) => chosen.value[row.line]))
const twice = computed(() => {
  const ids = taken.value.map((row) => chosen.value[row.line])
  return ids.some((id, i) => ids.indexOf(id) !== i)
})

async function look(): Promise<void> {
  const params = { path: { sitting_id: sitting.value?.id ?? '' } }
  const answer = await ask(client.POST('/api/sittings/{sitting_id}/read', { params, body: { text: text.value } }))
  refusal.value = answer.ok ? null : answer.refusal
  table.value = answer.ok ? answer.data : null
  chosen.value = Object.fromEntries((table.value?.rows ?? []).map((row) => [row.line, row.why ? null : row.pupil_id]))
}

async function choose(file: File): Promise<void> {
  text.value = await textOf(file)
  await look()
}

function enter(): void {
  const used = (table.value?.questions ?? []).filter((one) => one !== null)
  const entries: AnswerEntry[] = taken.value.flatMap((row) =>
    used.map((number) => {
      const written = row.written[number] ?? ''
      const away = written.toLowerCase() === 'away'
      return { pupil_id: chosen.value[row.line] ?? '', number, written: away ? null : written, gone: false }
    }),
  )
  props.desk.enter(entries)
  emit('done')
}
</script>

<template>
  <Dialog
    visible
    modal
    header="Answers from a table"
    :style="{ width: 'min(980px, 96vw)' }"
    @update:visible="emit('done')"
  >
    <div class="bring">
      <p>
        A line for each pupil, the alias first, then the answers; a head with the numbers of the problems or the
        problems themselves, in any order, is understood. Commas, semicolons or tabs.
      </p>
      <Textarea
        v-model="text"
        rows="5"
        :maxlength="limits.paste"
        aria-label="The table"
        placeholder="Sedge, 4 7/12, 5 1/2"
        spellcheck="false"
      />
      <p class="acts">
        <Button label="See what is in it" :disabled="!text.trim()" @click="look" />
        <ChooseFile
          label="or choose a file (CSV)"
          accept=".csv,.tsv,.txt,text/csv"
          hint="A class of 60 takes less than 100 kB."
          :largest="limits.paste"
          @file="choose"
          @refused="refusal = $event"
        />
      </p>
      <p v-if="refusal" class="refusal" role="alert">{{ refusal.message }} {{ refusal.hint }}</p>
      <template v-if="table && sitting">
        <p v-for="said in table.said" :key="said" class="quiet">{{ said }}</p>
        <div class="wide" tabindex="0" role="region" aria-label="What is in the table">
          <table>
            <thead>
              <tr>
                <th scope="col">line</th>
                <th scope="col">pupil</th>
                <th scope="col"><span class="sr-only">What is wrong</span></th>
                <th v-for="(_, i) in sitting.questions" :key="i" scope="col">
                  {{ i + 1 }}<span v-if="!table.questions.includes(i)" class="quiet"> (not in it)</span>
                </th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="row in table.rows" :key="row.line" :data-out="!chosen[row.line]">
                <td>{{ row.line }}</td>
                <th scope="row">
                  <Select
                    v-if="row.why || !row.pupil_id"
                    v-model="chosen[row.line]"
                    :options="pupils"
                    option-label="alias"
                    option-value="id"
                    placeholder="leave this line out"
                    :aria-label="`Pupil of line ${row.line}`"
                  />
                  <template v-else>{{ row.alias }}</template>
                </th>
                <td class="refusal why">{{ row.why }}</td>
                <td v-for="(written, i) in row.written" :key="i">{{ written }}</td>
              </tr>
            </tbody>
          </table>
        </div>
        <p v-if="twice" class="refusal">One pupil is chosen for two lines.</p>
        <p class="acts">
          <Button
            :label="`Enter ${taken.length} ${taken.length === 1 ? 'line' : 'lines'}`"
            :disabled="!taken.length || twice"
            @click="enter"
          />
          <span class="quiet">All of them at once; Undo takes them all back.</span>
        </p>
      </template>
    </div>
  </Dialog>
</template>

<style scoped>
.bring {
  display: grid;
  gap: 12px;
}
.bring :deep(textarea) {
  width: 100%;
  font: inherit;
  background: var(--field);
  color: var(--ink);
  border: 1px solid var(--field-edge);
  padding: 6px 10px;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 20px;
  align-items: center;
}
.refusal {
  color: var(--role-wrong);
}
.quiet {
  color: var(--ink-quiet);
}
.wide {
  overflow: auto;
  max-height: 46vh;
}
table {
  border-collapse: collapse;
}
th,
td {
  border-bottom: 1px solid var(--hair);
  padding: 3px 10px;
  text-align: left;
  font-weight: 400;
  white-space: nowrap;
}
.why {
  white-space: normal;
  min-width: 9rem;
}
[data-out='true'] td:not(.why) {
  color: var(--ink-quiet);
}
</style>
