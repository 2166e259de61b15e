<script setup lang="ts">
import InputText from 'primevue/inputtext'

import limits from './limits.json'

defineOptions({ inheritAttrs: false })
/** The address that somebody signs in by. */
const address = defineModel<string>({ required: true })
withDefaults(defineProps<{ label: string; id?: string }>(), { id: 'address' })
</script>

<template>
  <label :for="id">{{ label }}</label>
  <InputText
    :id="id"
    v-bind="$attrs"
    v-model="address"
    type="email"
    autocomplete="username"
    :maxlength="limits.address"
    required
  />
</template>

<style scoped>
label {
  padding-top: 8px;
}
input {
  width: min(28rem, 100%);
}
</style>
