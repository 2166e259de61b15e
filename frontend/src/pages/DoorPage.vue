<script setup lang="ts">
import Button from 'primevue/button'

import DoorNote from '../parts/DoorNote.vue'

document.title = 'At the door · Keen Slate'
</script>

<template>
  <DoorNote>
    <h1>Nobody is signed in here</h1>
    <p>
      Come in by the link that Keen Slate printed when it was started. It works once; this command, in the folder of
      Keen Slate, prints another one:
    </p>
    <p class="command"><code>./slate link</code></p>
    <Button as="a" href="/" class="in" label="I am signed in: to the Shelf" />
  </DoorNote>
</template>

<style scoped>
.in {
  text-decoration: none;
}
.command {
  font-size: 1.15rem;
}
code {
  font-family: ui-monospace, monospace;
  background: #eef3f4;
  padding: 4px 10px;
  border-radius: 2px;
}
</style>
