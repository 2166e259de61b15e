<script setup lang="ts" generic="T">
import Select from 'primevue/select'

/** What is chosen of some options, with what it is called before it. */
const chosen = defineModel<T>({ required: true })
withDefaults(
  defineProps<{
    label: string
    options: { code: T; name: string }[]
    /** Whether the label is only read out. */
    bare?: boolean
  }>(),
  { bare: false },
)
</script>

<template>
  <label class="pick"
    ><span :class="{ 'sr-only': bare }">{{ label }}</span>
    <Select v-model="chosen" :options="options" option-label="name" option-value="code" :aria-label="label"
  /></label>
</template>

<style scoped>
.pick > span:not(.sr-only) {
  margin-right: 8px;
}
</style>
