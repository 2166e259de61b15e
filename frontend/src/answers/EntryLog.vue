<script setup lang="ts">
import Dialog from 'primevue/dialog'
import { onMounted, ref } from 'vue'

import { ask, client, type Refusal, type Schemas } from '../api/client'
import { momentOf } from '../parts/moments'

const props = defineProps<{ sittingId: string }>()
const emit = defineEmits<{ done: [] }>()
const lines = ref<Schemas['EntryLogLine'][] | null>(null)
const refusal = ref<Refusal | null>(null)
const WHO: Record<string, string> = { teacher: 'by you', pupil: 'by the pupil', file: 'from a file' }

const said = (line: Schemas['EntryLogLine']) => (line.gone ? 'emptied' : (line.written ?? 'away') || 'blank')

onMounted(async () => {
  const params = { path: { sitting_id: props.sittingId } }
  const answer = await ask(client.GET('/api/sittings/{sitting_id}/log', { params }))
  if (answer.ok) lines.value = answer.data.lines
  else refusal.value = answer.refusal
})
</script>

<template>
  <Dialog visible modal header="What was entered, the last first" @update:visible="emit('done')">
    <p v-if="refusal" role="alert">{{ refusal.message }} {{ refusal.hint }}</p>
    <p v-if="lines?.length === 0">Nothing yet.</p>
    <div class="wide" tabindex="0" role="region" aria-label="What was entered">
      <table v-if="lines?.length">
        <tbody>
          <tr v-for="(line, i) in lines" :key="i">
            <th scope="row">{{ line.alias }}</th>
            <td>problem {{ line.number + 1 }}</td>
            <td class="said">{{ said(line) }}</td>
            <td>{{ WHO[line.made_by] ?? line.made_by }}, {{ momentOf(line.made_at) }}</td>
          </tr>
        </tbody>
      </table>
    </div>
  </Dialog>
</template>

<style scoped>
.wide {
  overflow: auto;
  max-height: 60vh;
}
table {
  border-collapse: collapse;
}
th,
td {
  border-bottom: 1px solid var(--hair);
  padding: 3px 14px 3px 0;
  text-align: left;
  font-weight: 400;
}
.said {
  white-space: pre-line;
  overflow-wrap: anywhere;
  max-width: 18rem;
}
</style>
