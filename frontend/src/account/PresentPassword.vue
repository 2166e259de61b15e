<script setup lang="ts">
import InputText from 'primevue/inputtext'

import limits from '../parts/limits.json'

/** The present password, where it is asked for. */
const password = defineModel<string>({ required: true })
defineProps<{ id: string }>()
</script>

<template>
  <label :for="id">Present password</label>
  <InputText :id="id" v-model="password" type="password" autocomplete="current-password" :maxlength="limits.password" />
</template>

<style scoped>
label {
  padding-top: 8px;
}
input {
  width: min(28rem, 100%);
}
</style>
