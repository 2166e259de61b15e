<script setup lang="ts">
import Checkbox from 'primevue/checkbox'
import { computed } from 'vue'

import type { Choices } from '../api/client'
import type { Wish } from './wish'

const wish = defineModel<Wish>({ required: true })
const props = defineProps<{ targets: Choices['targets'] }>()
const families = computed(() =>
  [...new Set(props.targets.map((one) => one.family))].map((name) => {
    const all = props.targets.filter((one) => one.family === name)
    return { name, all, chosen: all.filter((one) => wish.value.targets.includes(one.code)).length }
  }),
)
const said = computed(() => (wish.value.targets.length ? `${wish.value.targets.length} chosen` : 'as they come'))
</script>

<template>
  <details class="targets">
    <summary>Wrong answers it has to show: {{ said }}</summary>
    <label><Checkbox v-model="wish.separate" binary /> and tell from each other</label>
    <details v-for="family in families" :key="family.name" :open="family.chosen > 0">
      <summary>
        {{ family.name }}<template v-if="family.chosen"> ({{ family.chosen }})</template>
      </summary>
      <label v-for="one in family.all" :key="one.code" class="target">
        <Checkbox v-model="wish.targets" :value="one.code" /> {{ one.name }}
      </label>
    </details>
  </details>
</template>

<style scoped>
summary {
  padding: 3px 0;
}
label {
  display: flex;
  gap: 8px;
  align-items: baseline;
  padding: 1px 0;
}
.targets > :not(summary) {
  margin-left: 16px;
}
.target {
  padding-left: 16px;
}
</style>
