<script setup lang="ts">
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { ref, watch } from 'vue'

import { client, type Schemas, type Working } from '../api/client'
import { useLatest } from '../api/useLatest'
import { usePaper } from '../stores/paper'

const props = defineProps<{ working: Working }>()
const paper = usePaper()
const { latest, drop } = useLatest()
const typed = ref('')
const judged = ref<Schemas['EstimateVerdictView'] | null>(null)
const trouble = ref('')

const SAID: Record<Schemas['EstimateVerdictView']['verdict'], string> = {
  fits: 'It fits.',
  explained: 'This may have happened:',
  near: 'It can serve.',
  'too-far': 'Too far off.',
  unreadable: 'Not to be read.',
}

async function see(): Promise<void> {
  clear()
  if (!typed.value.trim()) return
  const target = (paper.example?.target ?? null) as 'improper' | 'mixed' | 'fraction' | 'decimal' | null
  const body = { text: props.working.problem.text, ways: props.working.methods, estimate: typed.value.trim(), target }
  const answer = await latest((signal) => client.POST('/api/estimate', { body, signal }))
  if (!answer) return
  if (answer.ok) judged.value = answer.data.verdict
  else trouble.value = `${answer.refusal.message} ${answer.refusal.hint}`
}

function clear(): void {
  drop()
  judged.value = null
  trouble.value = ''
}

watch(
  () => [props.working.problem.text, props.working.methods],
  () => {
    typed.value = ''
    clear()
  },
)
</script>

<template>
  <form class="pupils" @submit.prevent="see">
    <label for="pupils-estimate">A pupil’s estimate</label>
    <InputText id="pupils-estimate" v-model="typed" autocomplete="off" maxlength="40" @input="clear" />
    <Button type="submit" class="word" :disabled="!typed.trim()">Judge it</Button>
    <p v-if="judged" role="status" :data-verdict="judged.verdict">{{ SAID[judged.verdict] }} {{ judged.reason }}</p>
    <p v-else-if="trouble" role="alert">{{ trouble }}</p>
  </form>
</template>

<style scoped>
.pupils {
  display: grid;
  grid-template-columns: auto 5.5rem auto;
  gap: 4px 10px;
  align-items: center;
  justify-content: start;
  padding-top: 10px;
  font-size: 0.95rem;
}
input {
  font: inherit;
  background: var(--field);
  color: var(--ink);
  border: 1px solid var(--field-edge);
  border-radius: 2px;
  padding: 4px 8px;
}
p {
  grid-column: 1 / -1;
}
</style>
