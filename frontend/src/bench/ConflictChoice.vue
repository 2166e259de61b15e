<script setup lang="ts">
import Button from 'primevue/button'
import Dialog from 'primevue/dialog'

import { useBench } from '../stores/bench'
import { useWays } from '../stores/ways'

const bench = useBench()
const ways = useWays()

async function settleWays(keepMine: boolean): Promise<void> {
  if (await ways.settle(keepMine)) await bench.houseChanged()
}
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
  <Dialog :visible="!!ways.conflict" modal :closable="false" header="Changed in another tab" class="choice">
    <p>The ways for all sets were changed in another tab or on another machine since they were opened here.</p>
    <div class="ways">
      <Button label="Put my ways in their place" autofocus @click="settleWays(true)" />
      <Button label="Take the other ways, drop my change" variant="outlined" @click="settleWays(false)" />
    </div>
  </Dialog>
</template>

<style scoped>
p {
  max-width: 30rem;
  padding-bottom: 1.2rem;
}
.ways {
  display: flex;
  flex-wrap: wrap;
  gap: 0.8rem;
}
</style>
