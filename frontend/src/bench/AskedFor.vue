<script setup lang="ts">
import Button from 'primevue/button'
import { type Target, usePaper } from '../stores/paper'

const paper = usePaper()
const FORMS: { target: Target | ''; name: string }[] = [
  { target: '', name: 'simplest form' },
  { target: 'improper', name: 'improper fraction' },
  { target: 'mixed', name: 'mixed number' },
  { target: 'fraction', name: 'fraction' },
  { target: 'decimal', name: 'decimal' },
]
</script>

<template>
  <section v-if="paper.example" aria-labelledby="asked-heading">
    <h2 id="asked-heading">Asked for</h2>
    <div class="forms">
      <Button
        v-for="form in FORMS"
        :key="form.target"
        class="word"
        :aria-pressed="(paper.example.target ?? '') === form.target"
        @click="paper.changeExample({ target: form.target })"
      >
        {{ form.name }}
      </Button>
    </div>
  </section>
</template>

<style scoped>
.forms {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 10px;
  margin-left: -6px;
}
[aria-pressed='true'] {
  font-weight: 700;
  text-decoration: underline;
  text-decoration-thickness: 2px;
}
</style>
