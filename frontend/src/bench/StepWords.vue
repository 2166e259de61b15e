<script setup lang="ts">
import Button from 'primevue/button'
import Textarea from 'primevue/textarea'
import { computed, ref, watch } from 'vue'

import type { Step } from '../api/client'
import limits from '../parts/limits.json'
import { useBench } from '../stores/bench'
import { usePaper } from '../stores/paper'

const props = defineProps<{
  step: Step
  /** Which of its sentences. */
  which: 'title' | 'reason' | 'spoken'
  /** What stands before the field. */
  label: string
  /** An id for the field, unlike every other on the page. */
  id: string
}>()

const bench = useBench()
const paper = usePaper()
const suffix = computed(() => (props.which === 'reason' ? '' : ` ${props.which}`))
const now = computed(() => props.step[props.which])
const own = computed(() => props.step[`own_${props.which}`])
const from = computed(() => props.step[`${props.which}_from`])
const text = ref(now.value)
watch(now, (sentence) => (text.value = sentence))

async function keep(): Promise<void> {
  const wanted = text.value.trim()
  if (wanted === now.value) return
  await paper.reword(props.step.key + suffix.value, wanted === own.value ? '' : wanted)
}

async function keepForSet(): Promise<void> {
  const sentence = text.value.trim()
  await bench.rewordSet(props.step.kind + suffix.value, sentence)
  await paper.reword(props.step.key + suffix.value, '')
}

async function restore(): Promise<void> {
  text.value = own.value
  if (from.value === 'set') await bench.rewordSet(props.step.kind + suffix.value, '')
  else await paper.reword(props.step.key + suffix.value, '')
}
</script>

<template>
  <div class="words">
    <label :for="id">{{ label }}<span v-if="from === 'set'"> (in the whole set)</span></label>
    <Textarea :id="id" v-model="text" rows="2" auto-resize :maxlength="limits.words" @change="keep" />
    <p v-if="from" class="after">
      <Button v-if="from === 'example'" class="word" @click="keepForSet">Say it so in the whole set</Button>
      <Button class="word" @click="restore">Back to Keen Slate’s words</Button>
    </p>
  </div>
</template>

<style scoped>
.words {
}
label {
  font-size: 0.88rem;
  line-height: var(--square);
  color: var(--ink-quiet);
  display: block;
}
textarea {
  display: block;
  width: 100%;
  font: inherit;
  font-size: 0.95rem;
  line-height: var(--square);
  field-sizing: content;
  min-height: calc(2 * var(--square));
  color: var(--ink);
  background: var(--field);
  border: 0;
  border-radius: 2px;
  padding: 0 6px;
  resize: none;
  box-shadow: 0 0 0 1px var(--field-edge);
}
.after {
  display: flex;
  flex-wrap: wrap;
  gap: 0 12px;
}
.word {
  padding: 0;
  min-height: var(--square);
  font-size: 0.88rem;
  text-decoration-color: currentColor;
}
</style>
