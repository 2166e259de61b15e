<script setup lang="ts">
import Button from 'primevue/button'

import { usePaper } from '../stores/paper'
import { useWays } from '../stores/ways'

const paper = usePaper()
const ways = useWays()
void ways.load()

async function choose(code: string): Promise<void> {
  if (paper.example) await paper.changeExample({ ways: { ...paper.example.ways, layout: code } })
}
</script>

<template>
  <div class="switch" role="group" aria-label="Layout on the paper">
    <Button
      v-for="item in ways.layouts"
      :key="item.code"
      class="word"
      :aria-pressed="paper.working?.layout === item.code"
      @click="choose(item.code)"
    >
      {{ item.name }}
    </Button>
  </div>
</template>

<style scoped>
.switch {
  display: flex;
  flex-wrap: wrap;
  gap: 0 10px;
  height: var(--square);
  margin-left: -4px;
}
.word {
  padding: 0 4px;
  line-height: var(--square);
  font-size: 0.9rem;
  color: var(--ink-quiet);
}
[aria-pressed='true'] {
  color: var(--ink);
  font-weight: 700;
  text-decoration: underline;
  text-decoration-thickness: 2px;
}
</style>
