<script setup lang="ts">
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import Select from 'primevue/select'
import { ref, watch } from 'vue'

import type { Schemas } from '../api/client'
import limits from '../parts/limits.json'
import { newQuestion, type Question, readQuestions, writeQuestions } from './questions'

const props = defineProps<{
  /** The checklist as its ways have it; empty where there is none of its own. */
  text: string
  /** What a question may hang on. */
  hangsOn: Schemas['CodeOut'][]
  /** The questions to begin with where there is no list yet. */
  standard: string
  /** Where its cards can be printed. */
  card: string
  /** For whom the list is, as a name for its fields. */
  whose: string
}>()
const emit = defineEmits<{ keep: [text: string] }>()

const questions = ref<Question[]>([])
// What was kept from here comes back when it is stored; what has been typed since then must not be lost by it.
const underway: string[] = []
watch(
  () => props.text,
  (text) => {
    const at = underway.indexOf(text)
    if (at >= 0) underway.splice(0, at + 1)
    else questions.value = readQuestions(text)
  },
  { immediate: true },
)

function keep(): void {
  const text = writeQuestions(questions.value)
  if (text === (underway.at(-1) ?? props.text)) return
  underway.push(text)
  emit('keep', text)
}

function begin(): void {
  questions.value = readQuestions(props.standard)
  keep()
}

function remove(at: number): void {
  questions.value.splice(at, 1)
  keep()
}

function up(at: number): void {
  const [moved] = questions.value.splice(at, 1)
  if (moved) questions.value.splice(at - 1, 0, moved)
  keep()
}
</script>

<template>
  <div class="own">
    <p v-if="!questions.length">
      The usual questions are asked{{ whose === 'in this set' ? ', or those for all sets' : '' }}.
      <Button label="Write our own" variant="link" @click="begin" />
    </p>
    <ol v-else>
      <li v-for="(question, i) in questions" :key="question.id">
        <InputText
          v-model="question.asks"
          :maxlength="limits.question"
          :aria-label="`Question ${i + 1} ${whose}`"
          placeholder="What is asked?"
          @change="keep"
        />
        <Select
          v-model="question.hangsOn"
          :options="hangsOn"
          option-label="name"
          option-value="code"
          :aria-label="`What question ${i + 1} hangs on`"
          append-to="self"
          @change="keep"
        />
        <span class="acts">
          <Button label="Up" variant="link" :disabled="!i" :aria-label="`Question ${i + 1} up`" @click="up(i)" />
          <Button label="Remove" variant="link" :aria-label="`Remove question ${i + 1}`" @click="remove(i)" />
        </span>
      </li>
    </ol>
    <p class="acts">
      <Button
        v-if="questions.length && questions.length < limits.questions"
        label="Add a question"
        variant="link"
        @click="questions.push(newQuestion())"
      />
      <a :href="card" target="_blank">Print as cards</a>
    </p>
  </div>
</template>

<style scoped>
.own ol {
  list-style: none;
  margin: 0;
  padding: 0;
}
.own li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr) auto;
  gap: 6px;
  align-items: center;
  padding: 3px 0;
}
.own :deep(.p-inputtext),
.own :deep(.p-select-label) {
  padding: 2px 8px;
  font-size: 0.95rem;
}
@media (max-width: 700px) {
  .own li {
    grid-template-columns: minmax(0, 1fr);
  }
}
.own p,
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  align-items: baseline;
}
.own :deep(.p-button-link) {
  padding: 2px 0;
}
a {
  color: inherit;
  text-underline-offset: 4px;
}
</style>
