<script setup lang="ts">
/**
 * A link to a file that takes work to make. In a page of its own: where its turn has not come, that page says so,
 * waits and asks again.
 */
defineProps<{ to: string }>()
</script>

<template>
  <a class="word" :href="to" target="_blank"><slot /></a>
</template>
