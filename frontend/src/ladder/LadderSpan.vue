<script setup lang="ts">
import Button from 'primevue/button'
import InputNumber from 'primevue/inputnumber'
import Select from 'primevue/select'
import { ref } from 'vue'

import type { Choices } from '../api/client'

/** A whole climb at once: from a rung to a rung, in so many problems. */
defineProps<{ rungs: Choices['rungs'] }>()
defineEmits<{ span: [from: string, to: string, steps: number] }>()

const from = ref<string | null>(null)
const to = ref<string | null>(null)
const steps = ref(8)
const name = (one: { code: string; name: string }) => `${one.name} ${one.code}`
</script>

<template>
  <p class="span">
    From
    <Select
      v-model="from"
      :options="rungs"
      :option-label="name"
      option-value="code"
      filter
      auto-filter-focus
      placeholder="which rung?"
      aria-label="From the rung"
    />
    to
    <Select
      v-model="to"
      :options="rungs"
      :option-label="name"
      option-value="code"
      filter
      auto-filter-focus
      placeholder="which rung?"
      aria-label="To the rung"
    />
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
