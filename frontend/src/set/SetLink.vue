<script setup lang="ts">
import Button from 'primevue/button'

import { useAsk } from '../parts/useAsk'
import { useBench } from '../stores/bench'

const bench = useBench()
const askFirst = useAsk()
const origin = location.origin
</script>

<template>
  <h2>A link to show</h2>
  <p v-if="bench.set?.show_address">
    Whoever has this address may read the set:
    <a :href="bench.set.show_address" target="_blank" rel="noopener" class="address">{{
      origin + bench.set.show_address
    }}</a>
    <Button
      class="word"
      @click="askFirst($event, 'Who has the address can read the set no more.', 'Withdraw', () => bench.show(false))"
    >
      Withdraw it
    </Button>
  </p>
  <p v-else class="words"><Button class="word" @click="bench.show(true)">Make a link</Button></p>
</template>

<style scoped src="./panel.css"></style>
<style scoped>
.address {
  overflow-wrap: anywhere;
}
</style>
