<script setup lang="ts">
import { computed } from 'vue'

import { usePaper } from '../stores/paper'

/** What may surprise in a step (its place, from 0), or in the problem as a whole. */
const props = defineProps<{ step: number | null }>()
const paper = usePaper()
const notes = computed(() => (paper.working?.noticed ?? []).filter((one) => one.step === props.step))
</script>

<template>
  <ul v-if="notes.length" class="noticed" aria-label="Before you use it">
    <li v-for="note in notes" :key="note.said">{{ note.said }}</li>
  </ul>
</template>

<style scoped>
.noticed {
  font-size: 0.9rem;
  line-height: var(--square);
  color: var(--ink-quiet);
  width: fit-content;
  max-width: 34rem;
}
li::before {
  content: '▸ ';
  color: var(--role-carried);
}
</style>
