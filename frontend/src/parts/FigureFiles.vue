<script setup lang="ts">
import Button from 'primevue/button'
import { ref } from 'vue'

import { savePng } from './saveFigure'

const props = defineProps<{
  /** Where the SVG file of the picture is. */
  address: string
  /** What its files are called, without their ending. */
  name: string
}>()

const failed = ref(false)

async function png(): Promise<void> {
  failed.value = !(await savePng(props.address, `${props.name}.png`))
}
</script>

<template>
  <span class="files">
    Save as <a :href="address" :download="`${name}.svg`">SVG</a> or
    <Button class="word" @click="png">PNG</Button>
    <span v-if="failed" role="alert"> The picture could not be had right now. Try again in a moment.</span>
  </span>
</template>

<style scoped>
.files {
  font-size: 0.88rem;
  color: var(--ink-quiet);
}
a {
  color: var(--ink);
  text-underline-offset: 3px;
}
.word {
  padding: 0;
  font-size: inherit;
  text-decoration-color: currentColor;
}
</style>
