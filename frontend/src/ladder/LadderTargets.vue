<script setup lang="ts">
import { computed } from 'vue'

import type { Choices } from '../api/client'
import type { Wish } from './wish'

const wish = defineModel<Wish>({ required: true })
const props = defineProps<{ targets: Choices['targets'] }>()
const families = computed(() => [...new Set(props.targets.map((one) => one.family))])

function flip(code: string): void {
  const { targets } = wish.value
  wish.value.targets = targets.includes(code) ? targets.filter((one) => one !== code) : [...targets, code]
}
</script>

<template>
  <fieldset>
    <legend>Wrong answers it has to show</legend>
    <label><input v-model="wish.separate" type="checkbox" /> and tell from each other</label>
    <details
      v-for="family in families"
      :key="family"
      :open="targets.some((one) => one.family === family && wish.targets.includes(one.code))"
    >
      <summary>
        {{ family
        }}<template v-if="targets.some((one) => one.family === family && wish.targets.includes(one.code))">
          ({{ targets.filter((one) => one.family === family && wish.targets.includes(one.code)).length }})</template
        >
      </summary>
      <label v-for="one in targets.filter((item) => item.family === family)" :key="one.code" class="target">
        <input type="checkbox" :checked="wish.targets.includes(one.code)" @change="flip(one.code)" /> {{ one.name }}
      </label>
    </details>
  </fieldset>
</template>

<style scoped>
fieldset {
  border: 0;
  padding: 0;
  margin: 0;
}
legend {
  font-weight: 700;
  padding: 0;
}
summary {
  cursor: pointer;
  padding: 3px 0;
  color: var(--on-slate-quiet);
}
.target {
  display: block;
  padding: 1px 0 1px 14px;
}
</style>
