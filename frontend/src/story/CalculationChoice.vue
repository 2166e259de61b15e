<script setup lang="ts">
import Button from 'primevue/button'
import { computed } from 'vue'

import type { StoryChoices } from '../api/client'
import RungSelect from '../parts/RungSelect.vue'

/** What is calculated in stories: the kinds that are chosen, in words, and one more to choose. */
const chosen = defineModel<string[]>({ required: true })
const props = defineProps<{ calculations: StoryChoices['calculations'] }>()

const taken = computed(() => props.calculations.filter((one) => chosen.value.includes(one.code)))
const others = computed(() => props.calculations.filter((one) => !chosen.value.includes(one.code)))
</script>

<template>
  <section aria-label="What is calculated">
    <h2>What is calculated</h2>
    <p v-if="!taken.length">anything</p>
    <ul>
      <li v-for="one in taken" :key="one.code">
        <span
          >{{ one.name }} <small>{{ one.code }}</small></span
        >
        <Button
          class="word"
          :aria-label="`Not: ${one.name}`"
          title="Take it out"
          @click="chosen = chosen.filter((code) => code !== one.code)"
          >×</Button
        >
      </li>
    </ul>
    <RungSelect
      class="add"
      :model-value="null"
      :rungs="others"
      label="Add a calculation"
      placeholder="Add a calculation: which?"
      @update:model-value="$event && (chosen = [...chosen, $event])"
    />
  </section>
</template>

<style scoped>
h2 {
  font-size: 1rem;
  padding: 6px 0 2px;
}
li {
  display: flex;
  justify-content: space-between;
  gap: 8px;
}
small {
  color: var(--on-slate-quiet);
}
.add {
  width: min(22rem, 100%);
  margin-top: 6px;
}
</style>
