<script setup lang="ts">
import InputNumber from 'primevue/inputnumber'

/** A number that is saved when its field is left or its buttons are pressed; null where it is empty. */
defineProps<{ value: number | null; min: number; max: number; label: string }>()
defineEmits<{ save: [value: number | null] }>()
</script>

<template>
  <InputNumber
    class="number"
    :model-value="value"
    :min="min"
    :max="max"
    :use-grouping="false"
    :aria-label="label"
    show-buttons
    @update:model-value="$emit('save', $event ?? null)"
  />
</template>

<style scoped>
.number :deep(input) {
  width: 4.8em;
}
</style>
