<script setup lang="ts">
import InputText from 'primevue/inputtext'

import limits from './limits.json'

defineOptions({ inheritAttrs: false })
/** A password: the present one, or a new one. */
const password = defineModel<string>({ required: true })
withDefaults(defineProps<{ label: string; id?: string; kind?: 'current-password' | 'new-password' }>(), {
  id: 'password',
  kind: 'current-password',
})
</script>

<template>
  <label :for="id">{{ label }}</label>
  <InputText
    :id="id"
    v-bind="$attrs"
    v-model="password"
    type="password"
    :autocomplete="kind"
    :maxlength="limits.password"
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
