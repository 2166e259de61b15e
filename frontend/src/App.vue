<script setup lang="ts">
import HatchDefs from './parts/HatchDefs.vue'
</script>

<template>
  <HatchDefs />
  <RouterView />
</template>
