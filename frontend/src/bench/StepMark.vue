<script setup lang="ts">
import type { Schemas, Step } from '../api/client'
import KeptField from '../parts/KeptField.vue'
import { useBench } from '../stores/bench'

const props = defineProps<{
  step: Step
  /** What it counts when it is marked. */
  mark?: Schemas['Points']
}>()
const bench = useBench()

async function pause(): Promise<void> {
  await bench.changeExample(({ fading }) => ({
    fading: { ...fading, pause: fading.pause === props.step.key ? null : props.step.key },
  }))
}
</script>

<template>
  <p v-if="mark" class="mark">
    <label
      >Marks <KeptField type="number" min="0" max="20" :value="mark.points" @save="bench.give(mark.key, $event)"
    /></label>
    {{ mark.loses }}
  </p>
  <p class="mark">
    <button class="word" :aria-pressed="step.pause" @click="pause">
      {{ step.pause ? 'No pause before this step' : 'Let them try before this step' }}
    </button>
  </p>
</template>

<style scoped>
.mark {
  font-size: 0.92rem;
  line-height: var(--square);
  background: var(--paper);
}
.word {
  text-decoration: underline;
  text-underline-offset: 3px;
  padding: 0;
}
</style>
