<script setup lang="ts">
import InputText from 'primevue/inputtext'

import limits from './limits.json'

/** What somebody will sign in by: an address and a new password. */
const address = defineModel<string>('address', { required: true })
const password = defineModel<string>('password', { required: true })
</script>

<template>
  <label for="address">Address (e-mail), as the name you sign in by</label>
  <InputText id="address" v-model="address" type="email" autocomplete="username" :maxlength="limits.address" required />
  <slot />
  <label for="password">New password, {{ limits.least_password }} characters or more</label>
  <InputText
    id="password"
    v-model="password"
    type="password"
    autocomplete="new-password"
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
