<script setup lang="ts">
// Each role has a hatch, so that handouts photocopied in black and white can still be read. The tint lies
// under the hatch; both are of the role's own colour. The table comes from the core.
import inks from './inks.json'
</script>

<template>
  <svg width="0" height="0" class="defs" aria-hidden="true">
    <defs>
      <pattern
        v-for="(ink, role) in inks.roles"
        :id="`hatch-${role}`"
        :key="role"
        :width="inks.tile"
        :height="inks.tile"
        patternUnits="userSpaceOnUse"
      >
        <rect :width="inks.tile" :height="inks.tile" :fill="ink.tint" />
        <path :d="ink.hatch" fill="none" :stroke="ink.colour" :stroke-width="ink.width" stroke-linecap="round" />
      </pattern>
    </defs>
  </svg>
</template>

<style scoped>
.defs {
  position: absolute;
}
</style>
