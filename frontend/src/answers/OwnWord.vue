<script setup lang="ts">
import Button from 'primevue/button'
import Checkbox from 'primevue/checkbox'
import InputNumber from 'primevue/inputnumber'
import { computed, ref } from 'vue'

import type { AnswerCell, Schemas } from '../api/client'
import type { SittingDesk } from './useSitting'

const props = defineProps<{
  desk: SittingDesk
  cell: AnswerCell
  /** What each step and the answer are worth. */
  points: Schemas['PointsView'][]
  most: number
}>()
const bySteps = ref(false)
const right = computed(() => ['right', 'right-value'].includes(props.cell.said))

/** Say something of the answer above the program; undone as any entry is. */
function say(word: Partial<Schemas['TeachersWord']>): void {
  const { pupil_id, number, written } = props.cell
  props.desk.enter([{ pupil_id, number, written, gone: false, word: { ...props.cell.word, ...word } }])
}

function takeBack(): void {
  say({ right: null, codes: [], points: null, steps: null })
}

/** Marks step by step: those that are ticked are earned. */
const steps = computed({
  get: () => props.cell.word.steps ?? [],
  set: (keys: string[]) => say({ steps: keys }),
})
</script>

<template>
  <section class="word-of-hers" aria-labelledby="own-word">
    <h3 id="own-word">Your own word</h3>
    <p class="acts">
      <Button
        v-if="right"
        label="It is wrong"
        size="small"
        variant="outlined"
        @click="say({ right: false, codes: [] })"
      />
      <Button v-else label="It is right" size="small" variant="outlined" @click="say({ right: true, codes: [] })" />
      <Button v-if="cell.overruled" label="Take it back" size="small" variant="outlined" @click="takeBack" />
    </p>
    <p class="marks">
      <label for="marks-given">Marks</label>
      <InputNumber
        input-id="marks-given"
        :model-value="cell.points"
        :min="0"
        :max="most"
        show-buttons
        button-layout="horizontal"
        :input-style="{ width: '3.2rem', textAlign: 'center' }"
        @update:model-value="say({ points: $event ?? null, steps: null })"
      >
        <template #decrementicon>−</template>
        <template #incrementicon>+</template>
      </InputNumber>
      <span>of {{ most }}</span>
      <Button class="word" :aria-expanded="bySteps" @click="bySteps = !bySteps">by step</Button>
    </p>
    <ul v-if="bySteps" class="steps">
      <li v-for="(one, i) in points" :key="one.key">
        <Checkbox v-model="steps" :input-id="`step-${i}`" :value="one.key" />
        <label :for="`step-${i}`"
          >{{ one.points }} {{ one.key === 'answer' ? 'for the answer' : `for step ${i + 1}`
          }}<small>{{ one.loses }}</small></label
        >
      </li>
    </ul>
  </section>
</template>

<style scoped>
.word-of-hers {
  border-top: 1px solid var(--hair);
  margin-top: 4px;
  display: grid;
  gap: 6px;
}
h3 {
  font-size: 1.02rem;
  padding: 8px 0 0;
}
.acts,
.marks {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
}
.marks .word {
  text-decoration-color: currentColor;
}
.steps {
  display: grid;
  gap: 4px;
}
.steps li {
  display: flex;
  gap: 8px;
  align-items: baseline;
}
small {
  display: block;
  color: var(--ink-quiet);
}
</style>
