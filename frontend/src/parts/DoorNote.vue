<script setup lang="ts">
/** A note on the desk, for who is not in yet. */
</script>

<template>
  <main class="door">
    <p class="name">Keen Slate</p>
    <section class="note on-paper"><slot /></section>
  </main>
</template>

<style scoped>
.door {
  max-width: 640px;
  margin: 0 auto;
  padding: 22px 24px 60px;
}
.name {
  font-weight: 700;
  padding-bottom: 48px;
}
.note {
  display: grid;
  gap: 14px;
  justify-items: start;
  color: var(--ink);
  padding: 30px 32px 32px 60px;
  border-radius: 2px;
  background: linear-gradient(90deg, transparent 38px, var(--margin-rule) 38px 40px, transparent 40px), var(--paper);
}
.note :slotted(h1) {
  font-size: 1.3rem;
}
</style>
