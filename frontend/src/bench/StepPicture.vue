<script setup lang="ts">
import Button from 'primevue/button'
import { computed, ref, watch } from 'vue'

import type { Step } from '../api/client'
import FigureDrawing from '../parts/FigureDrawing.vue'
import FigureFiles from '../parts/FigureFiles.vue'
import PickOne from '../parts/PickOne.vue'
import { useBench } from '../stores/bench'
import { usePaper } from '../stores/paper'

const props = defineProps<{
  step: Step
  /** The place of its step in the working, from 0. */
  index: number
  /** Whether the step is open, and its picture can be changed. */
  open: boolean
}>()

const bench = useBench()
const paper = usePaper()
const state = ref<'before' | 'after'>('after')
const kind = computed(() => props.step.figure?.kind ?? 'none')
const address = computed(() => `/api/sets/${bench.set?.id}/examples/${paper.chosen}/steps/${props.index}/picture.svg`)
const file = computed(() => `step-${props.index + 1}-${kind.value}`)
watch(kind, () => (state.value = 'after'))

const choices = computed(() => [...props.step.pictures, { code: 'none', name: 'no picture' }])

async function change(wanted: string): Promise<void> {
  const { pictures, picture_from: from, figure, key } = props.step
  // A picture that is left out because it shows nothing new is drawn where it is asked for.
  const asIs = wanted === pictures[0]?.code && from !== 'set' && (from !== '' || !!figure)
  await paper.reword(`${key} picture`, asIs ? '' : wanted)
}
</script>

<template>
  <div class="picture">
    <FigureDrawing v-if="step.figure" :figure="step.figure" :state="state" />
    <div v-if="step.figure?.acts || (open && step.pictures.length)" class="tools">
      <Button
        v-if="step.figure?.acts"
        class="word"
        :aria-pressed="state === 'before'"
        @click="state = state === 'after' ? 'before' : 'after'"
      >
        {{ state === 'after' ? 'Show it before' : 'Show what happens' }}
      </Button>
      <template v-if="open && step.pictures.length">
        <PickOne label="Picture" :model-value="kind" :options="choices" @update:model-value="change" />
        <FigureFiles v-if="step.figure" :address="address" :name="file" />
      </template>
    </div>
    <p v-if="step.figure?.note" class="why">{{ step.figure.note }}</p>
  </div>
</template>

<style scoped>
.picture {
  margin-left: 2px;
}
.tools {
  display: flex;
  flex-wrap: wrap;
  gap: 0 14px;
  align-items: center;
  min-height: var(--square);
}
.tools label {
  font-size: 0.88rem;
  color: var(--ink-quiet);
}
.word {
  padding: 0;
  min-height: var(--square);
  line-height: var(--square);
  font-size: 0.88rem;
  text-decoration-color: currentColor;
}
select {
  font: inherit;
  color: var(--ink);
  background: var(--field);
  border: 1px solid var(--field-edge);
  border-radius: 2px;
  height: 22px;
  line-height: 18px;
  font-size: 0.88rem;
  padding: 0 2px;
}
.why {
  font-size: 0.88rem;
  line-height: var(--square);
  color: var(--ink-quiet);
}
</style>
