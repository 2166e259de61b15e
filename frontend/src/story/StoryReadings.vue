<script setup lang="ts">
import Button from 'primevue/button'

import type { Figure, Story } from '../api/client'
import FigureDrawing from '../parts/FigureDrawing.vue'
import MathLine from '../parts/MathLine.vue'

/** How a story can be meant, side by side, each with its model; one is chosen by a press. */
defineProps<{
  /** Why it has to be asked. */
  doubt?: string
  readings: Story[]
}>()
defineEmits<{ chosen: [one: Story] }>()

/** The model that tells most: that of the last calculation that has one. */
function modelOf(one: Story): Figure | null {
  return [...one.calculations].reverse().find((part) => part.model)?.model ?? null
}
</script>

<template>
  <div class="doubt">
    <p>{{ doubt }} {{ readings.length > 1 ? 'How is it meant?' : 'Is it meant so?' }}</p>
    <ul class="readings" aria-label="How it can be meant">
      <li v-for="one in readings" :key="one.calculation">
        <Button class="reading" @click="$emit('chosen', one)">
          <span class="what">{{ one.situation_name }}: {{ one.unknown_name }} is to be found</span>
          <span v-for="part in one.calculations" :key="part.told" class="calculation">
            <small v-if="one.calculations.length > 1">{{ part.finds }} =</small> <MathLine :glyphs="part.glyphs" />
          </span>
          <FigureDrawing v-if="modelOf(one)" :figure="modelOf(one)!" state="before" />
        </Button>
      </li>
    </ul>
  </div>
</template>

<style scoped>
.doubt {
  grid-column: 1 / -1;
}
.readings {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(19rem, 100%), 1fr));
  gap: 10px;
  padding: 8px 0 0;
  list-style: none;
}
.readings li {
  display: grid;
}
.reading {
  display: flex;
  flex-direction: column;
  align-items: flex-start;
  gap: 4px;
  text-align: left;
  border: 1px solid var(--field-edge);
  border-radius: 3px;
  background: var(--field);
  color: var(--ink);
  padding: 8px 12px;
  cursor: pointer;
  min-width: 0;
}
.reading:hover {
  background: var(--shade);
}
.what {
  font-size: 0.92rem;
  color: var(--ink-quiet);
}
.calculation {
  font-size: 1.15rem;
}
.calculation small {
  font-size: 0.85rem;
  color: var(--ink-quiet);
}
.reading :deep(svg) {
  max-width: 100%;
  height: auto;
  max-height: 7rem;
}
</style>
