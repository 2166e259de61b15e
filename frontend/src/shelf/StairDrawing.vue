<script setup lang="ts">
/** How a set climbs: a step for each example, as high as its rung stands among those of the set. */
const props = defineProps<{ stair: number[] }>()
const top = () => Math.max(1, ...props.stair)
</script>

<template>
  <svg
    class="stair"
    :viewBox="`0 0 ${Math.max(1, stair.length)} ${top()}`"
    preserveAspectRatio="none"
    role="img"
    :aria-label="`climbs in ${top()} ${top() === 1 ? 'step' : 'steps'}`"
  >
    <rect v-for="(height, i) in stair" :key="i" :x="i + 0.06" :y="top() - height" width="0.88" :height="height" />
  </svg>
</template>

<style scoped>
.stair {
  width: 112px;
  height: 34px;
}
rect {
  fill: var(--ink-quiet);
}
</style>
