<script setup lang="ts">
import Button from 'primevue/button'
import type { Schemas, Step } from '../api/client'
import KeptNumber from '../parts/KeptNumber.vue'
import limits from '../parts/limits.json'
import { usePaper } from '../stores/paper'

const props = defineProps<{
  step: Step
  /** What it counts when it is marked. */
  mark?: Schemas['Points']
}>()
const paper = usePaper()

async function pause(): Promise<void> {
  await paper.changeExample(({ fading }) => ({
    fading: { ...fading, pause: fading.pause === props.step.key ? null : props.step.key },
  }))
}
</script>

<template>
  <p v-if="mark" class="mark">
    <label
      >Marks
      <KeptNumber :min="0" :max="limits.points" :value="mark.points" label="Marks" @save="paper.give(mark.key, $event)"
    /></label>
    {{ mark.loses }}
  </p>
  <p class="mark">
    <Button class="word" :aria-pressed="step.pause" @click="pause">
      {{ step.pause ? 'No pause before this step' : 'Let them try before this step' }}
    </Button>
  </p>
</template>

<style scoped>
.mark {
  font-size: 0.92rem;
  line-height: var(--square);
}
.word {
  text-decoration: underline;
  text-underline-offset: 3px;
  padding: 0;
}
</style>
