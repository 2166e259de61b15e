<script setup lang="ts">
import Button from 'primevue/button'
import Dialog from 'primevue/dialog'

const visible = defineModel<boolean>('visible', { required: true })
const KEYS: [string, string][] = [
  ['/', 'go to the entry line'],
  ['Enter', 'put the typed problem on the ladder'],
  ['↑  ↓', 'on the ladder: the example above or below'],
  ['Alt + ↑  Alt + ↓', 'on the ladder: move this example'],
  ['Delete', 'on the ladder: take this example off'],
  ['Ctrl + Z', 'undo'],
  ['Ctrl + Shift + Z', 'redo'],
  ['?', 'these keys'],
]
</script>

<template>
  <Dialog v-model:visible="visible" modal header="Keys" :closable="false" dismissable-mask>
    <dl>
      <div v-for="[key, does] in KEYS" :key="key">
        <dt>{{ key }}</dt>
        <dd>{{ does }}</dd>
      </div>
    </dl>
    <Button label="Close" autofocus @click="visible = false" />
  </Dialog>
</template>

<style scoped>
div {
  display: grid;
  grid-template-columns: 10rem 1fr;
  gap: 1rem;
  padding: 0.2rem 0;
}
dt {
  font-weight: 700;
}
dl {
  padding-bottom: 1.2rem;
}
</style>
