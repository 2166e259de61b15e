<script setup lang="ts">
import Button from 'primevue/button'
import Textarea from 'primevue/textarea'
import { ref } from 'vue'

import { ask, client, type Pupil, type Refusal, type SchoolClass, type Schemas } from '../api/client'
import KeptField from '../parts/KeptField.vue'
import { useAsk } from '../parts/useAsk'
import { aliasesIn } from './aliases'
import limits from '../parts/limits.json'

const props = defineProps<{ found: SchoolClass }>()
const emit = defineEmits<{ changed: [found: SchoolClass]; again: [] }>()
const aliases = ref('')
const refusal = ref<Refusal | null>(null)
const askFirst = useAsk()
const at = (pupil: Pupil) => ({ path: { class_id: props.found.id, pupil_id: pupil.id } })

async function add(): Promise<void> {
  const body = {
    aliases: aliasesIn(aliases.value),
  }
  const params = { path: { class_id: props.found.id } }
  const answer = await ask(client.POST('/api/classes/{class_id}/pupils', { params, body }))
  refusal.value = answer.ok ? null : answer.refusal
  if (!answer.ok) return
  aliases.value = ''
  emit('changed', answer.data)
}

async function change(pupil: Pupil, body: Schemas['PupilChange']): Promise<void> {
  const params = at(pupil)
  const answer = await ask(client.PATCH('/api/classes/{class_id}/pupils/{pupil_id}', { params, body }))
  refusal.value = answer.ok ? null : answer.refusal
  if (answer.ok) emit('changed', answer.data)
}

async function remove(pupil: Pupil): Promise<void> {
  const answer = await ask(client.DELETE('/api/classes/{class_id}/pupils/{pupil_id}', { params: at(pupil) }))
  refusal.value = answer.ok ? null : answer.refusal
  if (answer.ok) emit('again')
}
</script>

<template>
  <section class="sheet on-paper" aria-labelledby="pupils">
    <h2 id="pupils">Pupils</h2>
    <p v-if="refusal" class="refusal" role="alert">{{ refusal.message }} {{ refusal.hint }}</p>
    <ul class="list">
      <li v-for="pupil in found.pupils" :key="pupil.id" :data-left="!pupil.here">
        <KeptField
          :value="pupil.alias"
          :maxlength="limits.alias"
          :aria-label="`Alias of ${pupil.alias}`"
          @save="change(pupil, { alias: $event })"
        />
        <Button class="word" @click="change(pupil, { here: !pupil.here })">
          {{ pupil.here ? 'has left' : 'is back' }}
        </Button>
        <Button
          class="word"
          :aria-label="`Remove ${pupil.alias}`"
          @click="askFirst($event, `All that ${pupil.alias} wrote goes for good.`, 'Remove', () => remove(pupil))"
        >
          remove…
        </Button>
        <small v-if="pupil.full_name">This looks like a full name; an alias is enough.</small>
      </li>
    </ul>
    <form @submit.prevent="add">
      <label for="more-aliases">More aliases, a line each (no full names)</label>
      <Textarea id="more-aliases" v-model="aliases" rows="2" auto-resize spellcheck="false" />
      <Button type="submit" label="Add" :disabled="!aliases.trim()" />
    </form>
  </section>
</template>

<style scoped src="./class.css"></style>
<style scoped>
.list {
  display: grid;
  gap: 3px;
  max-height: 22rem;
  overflow: auto;
}
.list li {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 10px;
  align-items: baseline;
}
.list :deep(.kept) {
  width: 9.5rem;
}
[data-left='true'] :deep(.kept) {
  font-style: italic;
  color: var(--ink-quiet);
}
small {
  flex-basis: 100%;
  color: var(--ink-quiet);
}
.refusal {
  color: var(--role-wrong);
}
form {
  display: grid;
  gap: 6px;
  justify-items: start;
  padding-top: 12px;
}
form :deep(textarea) {
  width: 100%;
  font: inherit;
  background: var(--field);
  color: var(--ink);
  border: 1px solid var(--field-edge);
  padding: 4px 8px;
}
</style>
