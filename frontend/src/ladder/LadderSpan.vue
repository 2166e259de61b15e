<script setup lang="ts">
import Button from 'primevue/button'
import InputNumber from 'primevue/inputnumber'
import { ref } from 'vue'

import type { Choices } from '../api/client'
import RungSelect from '../parts/RungSelect.vue'

/** A whole climb at once: from a rung to a rung, in so many problems. */
defineProps<{ rungs: Choices['rungs'] }>()
defineEmits<{ span: [from: string, to: string, steps: number] }>()

const from = ref<string | null>(null)
const to = ref<string | null>(null)
const steps = ref(8)
</script>

<template>
  <p class="span">
    From
    <RungSelect v-model="from" :rungs="rungs" label="From the rung" placeholder="which rung?" />
    to
    <RungSelect v-model="to" :rungs="rungs" label="To the rung" placeholder="which rung?" />
    in
    <InputNumber v-model="steps" :min="1" :max="40" show-buttons aria-label="Number of problems" />
    problems
    <Button class="word" :disabled="!from || !to" @click="$emit('span', from ?? '', to ?? '', steps)"
      >Draw that stair</Button
    >
  </p>
</template>

<style scoped>
.span {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 8px;
  align-items: center;
}
.span :deep(.p-select) {
  width: min(15rem, 100%);
}
.span :deep(input) {
  width: 3.8em;
}
.word {
  text-decoration-color: currentColor;
}
</style>
