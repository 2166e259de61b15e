<script setup lang="ts">
import { computed, ref, watch } from 'vue'

import type { Step } from '../api/client'
import FigureDrawing from '../parts/FigureDrawing.vue'
import FigureFiles from '../parts/FigureFiles.vue'
import { useBench } from '../stores/bench'

const props = defineProps<{
  step: Step
  /** The place of its step in the working, from 0. */
  index: number
  /** Whether the step is open, and its picture can be changed. */
  open: boolean
}>()

const bench = useBench()
const state = ref<'before' | 'after'>('after')
const kind = computed(() => props.step.figure?.kind ?? 'none')
const address = computed(() => `/api/sets/${bench.set?.id}/examples/${bench.chosen}/steps/${props.index}/picture.svg`)
const file = computed(() => `step-${props.index + 1}-${kind.value}`)
watch(kind, () => (state.value = 'after'))

async function change(event: Event): Promise<void> {
  const wanted = (event.target as HTMLSelectElement).value
  const own = props.step.pictures[0]?.code ?? 'none'
  await bench.reword(`${props.step.key} picture`, wanted === own && props.step.picture_from !== 'set' ? '' : wanted)
}
</script>

<template>
  <div class="picture">
    <FigureDrawing v-if="step.figure" :figure="step.figure" :state="state" />
    <div v-if="step.figure?.acts || (open && step.pictures.length)" class="tools">
      <button
        v-if="step.figure?.acts"
        class="word"
        :aria-pressed="state === 'before'"
        @click="state = state === 'after' ? 'before' : 'after'"
      >
        {{ state === 'after' ? 'Show it before' : 'Show what happens' }}
      </button>
      <template v-if="open && step.pictures.length">
        <label>
          Picture
          <select :value="kind" @change="change">
            <option v-for="picture in step.pictures" :key="picture.code" :value="picture.code">
              {{ picture.name }}
            </option>
            <option value="none">no picture</option>
          </select>
        </label>
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
  background: var(--paper);
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
  background: #fff;
  border: 1px solid #8496a0;
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
  background: var(--paper);
}
</style>
