<script setup lang="ts">
// Each role has a hatch, so that handouts photocopied in black and white can still be read. The tint lies
// under the hatch; both are of the role's own colour.
const ROLES = ['first', 'second', 'third', 'fourth', 'fifth', 'sixth', 'carried', 'wrong', 'answer']
const HATCHES: Record<string, string> = {
  first: 'M-2 2 l4 -4 M0 10 l10 -10 M8 12 l4 -4',
  second: 'M3 3 h0.01 M8 8 h0.01',
  third: 'M2 5 h6 M5 2 v6',
  fourth: 'M-2 8 l4 4 M0 0 l10 10 M8 -2 l4 4',
  fifth: 'M3 0 v10 M8 0 v10',
  sixth: 'M0 3 l2.5 3 l2.5 -3 l2.5 3 l2.5 -3',
  carried: 'M0 2.5 h10 M0 7.5 h10',
  wrong: 'M1 1 l8 8 M9 1 l-8 8',
  answer: 'M0 5 h10',
}
</script>

<template>
  <svg width="0" height="0" class="defs" aria-hidden="true">
    <defs>
      <pattern v-for="role in ROLES" :id="`hatch-${role}`" :key="role" width="10" height="10" patternUnits="userSpaceOnUse">
        <g :data-role="role">
          <rect width="10" height="10" class="tint" />
          <path :d="HATCHES[role]" class="hatch" :class="{ dots: role === 'second' }" />
        </g>
      </pattern>
    </defs>
  </svg>
</template>

<style scoped>
.defs { position: absolute; }
.tint { fill: color-mix(in srgb, var(--role) 18%, white); }
.hatch { stroke: var(--role); stroke-width: 1.8; fill: none; }
.dots { stroke-width: 3.4; stroke-linecap: round; }
</style>
