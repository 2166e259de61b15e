<script setup lang="ts">
import type { Figure, Story } from '../api/client'
import FigureDrawing from '../parts/FigureDrawing.vue'
import StoryText from '../story/StoryText.vue'

defineProps<{
  story: Story
  /** Whether its question is seen. */
  asks: boolean
  /** Whether it fills the wall; it steps back for the calculation. */
  large: boolean
  /** Its model, while it stands under the text. */
  model: Figure | null
}>()
</script>

<template>
  <StoryText class="story" :data-large="large" :story="story" :asks="asks" :plain="large && !model" />
  <figure v-if="model" class="model paper-inks"><FigureDrawing :figure="model" state="before" /></figure>
</template>

<style scoped>
.story {
  font-size: calc(0.56 * var(--square));
  line-height: 1.45;
  padding: 0 0 calc(0.5 * var(--square)) calc(0.2 * var(--square));
  color: var(--wall-quiet);
}
.story[data-large='true'] {
  font-size: calc(0.78 * var(--square));
  color: inherit;
}
.model {
  margin: 0;
  width: min(56vw, 88vh);
  border-radius: 8px;
  padding: 1.5vh 1.4vw;
}
.model :deep(.figure) {
  --scale: 10px;
  width: 100%;
  height: auto;
}
</style>
