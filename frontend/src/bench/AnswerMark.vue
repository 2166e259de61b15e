<script setup lang="ts">
import { computed } from 'vue'

import KeptField from '../parts/KeptField.vue'
import { useBench } from '../stores/bench'

const bench = useBench()
const mark = computed(() => bench.working?.marks.at(-1))
</script>

<template>
  <details v-if="mark && bench.example" class="marks">
    <summary>{{ bench.example.points }} {{ bench.example.points === 1 ? 'mark' : 'marks' }} in all</summary>
    <p>
      <label
        >For the answer
        <KeptField type="number" min="0" max="20" :value="mark.points" @save="bench.give('answer', $event)"
      /></label>
      {{ mark.loses }}
    </p>
    <p>Those of a step stand under its “why?”.</p>
  </details>
</template>

<style scoped>
.marks {
  font-size: 0.92rem;
  color: var(--ink-quiet);
  width: fit-content;
  max-width: 100%;
  background: var(--paper);
  padding-right: 12px;
}
summary {
  cursor: pointer;
}
p {
  max-width: 34rem;
}
</style>
