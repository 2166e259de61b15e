<script setup lang="ts">
import Button from 'primevue/button'
import Dialog from 'primevue/dialog'

import { useBench } from '../stores/bench'

const bench = useBench()
</script>

<template>
  <Dialog :visible="!!bench.conflict" modal :closable="false" header="Changed in another tab" class="choice">
    <p>
      This set was changed in another tab or on another machine since it was opened here. It now has
      {{ bench.conflict?.examples.length }} examples. Nothing is lost yet.
    </p>
    <div class="ways">
      <Button label="Put my change on top" autofocus @click="bench.settle(true)" />
      <Button label="Take the other version, drop my change" variant="outlined" @click="bench.settle(false)" />
    </div>
  </Dialog>
</template>

<style scoped>
p { max-width: 30rem; padding-bottom: 1.2rem; }
.ways { display: flex; flex-wrap: wrap; gap: 0.8rem; }
</style>
