<script setup lang="ts">
import { computed } from 'vue'

import KeptNumber from '../parts/KeptNumber.vue'
import limits from '../parts/limits.json'
import { usePaper } from '../stores/paper'

const paper = usePaper()
const mark = computed(() => paper.working?.marks.at(-1))
</script>

<template>
  <details v-if="mark && paper.example" class="marks">
    <summary>{{ paper.example.points }} {{ paper.example.points === 1 ? 'mark' : 'marks' }} in all</summary>
    <p>
      <label
        >For the answer
        <KeptNumber
          :min="0"
          :max="limits.points"
          :value="mark.points"
          label="For the answer"
          @save="paper.give('answer', $event)"
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
  padding-right: 12px;
}
summary {
  cursor: pointer;
}
p {
  max-width: 34rem;
}
</style>
