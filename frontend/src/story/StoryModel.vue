<script setup lang="ts">
import Button from 'primevue/button'
import { ref, watch } from 'vue'

import type { Figure } from '../api/client'
import FigureDrawing from '../parts/FigureDrawing.vue'

const props = defineProps<{
  figure: Figure
  /** Whether what is found stands there, or a question mark; a press changes it. */
  found?: boolean
}>()
const after = ref(!!props.found)
watch(
  () => props.found,
  (now) => (after.value = !!now),
)
</script>

<template>
  <Button class="model" :title="after ? 'Show the question mark' : 'Fill in what is found'" @click="after = !after">
    <FigureDrawing :figure="figure" :state="after ? 'after' : 'before'" />
  </Button>
</template>

<style scoped>
.model {
  display: block;
  border: 0;
  padding: 0;
  background: none;
  color: inherit;
  cursor: pointer;
  max-width: 100%;
}
</style>
