<script setup lang="ts">
import Button from 'primevue/button'
import Toast from 'primevue/toast'
import { useToast } from 'primevue/usetoast'

const toast = useToast()
interface Told {
  summary?: string
  data?: { undo?: () => unknown }
}

function takeBack(told: Told): void {
  toast.removeGroup('told')
  told.data?.undo?.()
}
</script>

<template>
  <Toast group="told" position="bottom-center" :close-button-props="{ 'aria-label': 'Put this note away' }">
    <template #message="{ message }">
      <p class="said">{{ (message as Told).summary }}</p>
      <Button v-if="(message as Told).data?.undo" class="word" @click="takeBack(message as Told)">Undo</Button>
    </template>
  </Toast>
</template>

<style scoped>
.said {
  flex: 1;
}
.word {
  text-decoration-color: currentColor;
  font-weight: 700;
}
</style>
