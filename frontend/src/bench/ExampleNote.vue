<script setup lang="ts">
import { useBench } from '../stores/bench'

const bench = useBench()
const save = (event: Event) => void bench.changeExample({ note: (event.target as HTMLTextAreaElement).value })
</script>

<template>
  <section v-if="bench.example">
    <h2><label for="example-note">Note</label></h2>
    <textarea id="example-note" :key="bench.example.id" :value="bench.example.note" rows="2" maxlength="1000" placeholder="Only you see it." @change="save" />
  </section>
</template>

<style scoped>
textarea { font: inherit; width: 100%; border: 1px solid var(--hair); border-radius: 2px; background: #fff; color: var(--ink); padding: 4px 8px; resize: vertical; }
textarea:focus-visible { outline: 3px solid var(--focus-on-paper); }
</style>
