<script setup lang="ts">
import Select from 'primevue/select'

/** A line of the form: what is chosen, and one of its options. */
const chosen = defineModel<unknown>({ required: true })
defineProps<{ label: string; options: { code: unknown; name: string }[] }>()
</script>

<template>
  <label
    >{{ label }}
    <Select v-model="chosen" :options="options" option-label="name" option-value="code" :aria-label="label"
  /></label>
</template>
