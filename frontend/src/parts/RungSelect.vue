<script setup lang="ts">
import Select from 'primevue/select'

/** A rung, found by a word or by its code; null while none is chosen. */
const chosen = defineModel<string | null>({ required: true })
defineProps<{
  rungs: { code: string; name: string }[]
  label: string
  placeholder: string
}>()

const named = (one: { code: string; name: string }) => `${one.name} ${one.code}`
</script>

<template>
  <Select
    v-model="chosen"
    :options="rungs"
    :option-label="named"
    option-value="code"
    filter
    auto-filter-focus
    filter-placeholder="a word or a code"
    :placeholder="placeholder"
    :aria-label="label"
  >
    <template #option="{ option }">
      <span class="option"
        >{{ option.name }} <small>{{ option.code }}</small></span
      >
    </template>
  </Select>
</template>

<style scoped>
.option {
  white-space: normal;
}
small {
  opacity: 0.75;
  padding-left: 0.5em;
}
</style>
