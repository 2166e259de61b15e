<script setup lang="ts">
import AddressField from './AddressField.vue'
import limits from './limits.json'
import PasswordField from './PasswordField.vue'

/** What somebody will sign in by: an address and a new password. */
const address = defineModel<string>('address', { required: true })
const password = defineModel<string>('password', { required: true })
</script>

<template>
  <AddressField v-model="address" label="Address (e-mail), as the name you sign in by" />
  <slot />
  <PasswordField
    v-model="password"
    :label="`New password, ${limits.least_password} characters or more`"
    kind="new-password"
  />
</template>
