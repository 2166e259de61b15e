<script setup lang="ts">
import InputText from 'primevue/inputtext'

import limits from '../parts/limits.json'

/** The words that are looked for among sets. */
const words = defineModel<string>({ required: true })
</script>

<template>
  <InputText
    v-model="words"
    class="search"
    type="search"
    aria-label="Search"
    :maxlength="limits.search"
    autocomplete="off"
    placeholder="Search: a word, a problem, a standard"
  />
</template>
