<script setup lang="ts">
import type { Schemas } from '../api/client'
import { dayOf } from '../answers/cells'

defineProps<{
  /** How often a misconception did and could show, sitting by sitting. */
  chances: Schemas['ChancesView'][]
  /** Whether each chance is drawn: for one pupil. */
  each?: boolean
}>()
</script>

<template>
  <ol class="strip">
    <li v-for="(one, i) in chances" :key="i" :data-none="!one.could">
      <span v-if="!one.could" aria-hidden="true">·</span>
      <span v-else-if="each" class="dots" aria-hidden="true"
        >{{ '●'.repeat(one.did) }}{{ '○'.repeat(one.could - one.did) }}</span
      >
      <span v-else class="bar" aria-hidden="true" :style="{ '--did': one.did, '--could': one.could }" />
      <small
        >{{ one.could ? `${one.did} of ${one.could}` : 'no chance' }}<br />
        {{ dayOf(one.day) }}</small
      >
    </li>
  </ol>
</template>

<style scoped>
.strip {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 20px;
}
li {
  min-width: 74px;
}
.bar {
  display: block;
  width: 74px;
  height: 12px;
  border: 1px solid var(--ink);
  background:
    linear-gradient(var(--role-wrong), var(--role-wrong)) 0 0 / calc(100% * var(--did) / var(--could)) 100% no-repeat,
    #fff;
  print-color-adjust: exact;
}
.dots {
  letter-spacing: 0.08em;
}
small {
  display: block;
  color: var(--ink-quiet);
  line-height: 1.2;
}
</style>
