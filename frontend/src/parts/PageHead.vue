<script setup lang="ts">
import type { RouteLocationRaw } from 'vue-router'

/** The head of a page: where one is, and the ways out. */
withDefaults(
  defineProps<{
    title: string
    /** Where one came from, besides the Shelf. */
    back?: { to: RouteLocationRaw; name: string } | null
  }>(),
  { back: null },
)
</script>

<template>
  <header class="head">
    <span class="name">Keen Slate</span>
    <RouterLink v-if="title !== 'Shelf'" class="word" to="/">Shelf</RouterLink>
    <RouterLink v-if="back" class="word" :to="back.to">{{ back.name }}</RouterLink>
    <h1>{{ title }}</h1>
    <slot />
  </header>
</template>

<style scoped>
.head {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 16px;
  align-items: baseline;
  padding-bottom: 14px;
}
.name {
  font-weight: 700;
}
h1 {
  font-size: 1.35rem;
}
</style>
