<script setup lang="ts">
import Button from 'primevue/button'
import type { Misconception } from '../api/client'
import PickOne from '../parts/PickOne.vue'
import MathLine from '../parts/MathLine.vue'

type Layout = 'line' | 'stacked' | 'four-box' | 'checklist'
defineProps<{
  setId: string
  /** The layout that is seen. */
  layout: Layout
  light: boolean
  /** Wrong answers that can be shown as a question. */
  wrongs: Misconception[]
  /** The example's place, from 0, and how many there are. */
  at: number
  of: number
  /** Whether everything is uncovered. */
  done: boolean
}>()
defineEmits<{
  forward: []
  back: []
  go: [by: number]
  layout: [code: Layout]
  light: []
  full: []
  uncover: []
  wrong: [index: number]
}>()
const LAYOUTS: { code: Layout; name: string }[] = [
  { code: 'line', name: 'line by line' },
  { code: 'stacked', name: 'stacked' },
  { code: 'four-box', name: 'four boxes' },
  { code: 'checklist', name: 'checklist' },
]
</script>

<template>
  <nav class="bar" aria-label="Wall">
    <Button class="word" :disabled="at === 0" @click="$emit('go', -1)">Example before</Button>
    <Button class="word" @click="$emit('back')">Line back</Button>
    <Button class="word" @click="$emit('forward')">Next line</Button>
    <Button class="word" :disabled="at === of - 1" @click="$emit('go', 1)">Next example</Button>
    <Button class="word" @click="$emit('uncover')">{{ done ? 'Cover all' : 'Uncover all' }}</Button>
    <details v-if="wrongs.length">
      <summary>What happened here?</summary>
      <ul>
        <li v-for="(item, i) in wrongs" :key="item.code">
          <Button class="word" @click="$emit('wrong', i)">
            <MathLine :glyphs="item.glyphs" :spoken="item.answer" /> {{ item.name }}
          </Button>
        </li>
      </ul>
    </details>
    <PickOne label="Layout" :model-value="layout" :options="LAYOUTS" @update:model-value="$emit('layout', $event)" />
    <Button class="word" @click="$emit('light')">{{ light ? 'Dark' : 'Light' }}</Button>
    <Button class="word" @click="$emit('full')">Full screen</Button>
    <RouterLink class="word" :to="{ name: 'bench', params: { setId } }">Bench</RouterLink>
    <span class="keys"
      >Space or a click: next line · Backspace: back · N, P: examples · W: what happened here · C: four to choose from ·
      L: layout · D: light or dark · F: full screen</span
    >
  </nav>
</template>

<style scoped>
.bar {
  position: absolute;
  left: 0;
  right: 0;
  bottom: 0;
  background: #121a20;
  color: #f3f5f2;
  padding: 8px 20px;
  display: flex;
  flex-wrap: wrap;
  gap: 2px 14px;
  align-items: center;
  border-top: 1px solid #5b7482;
  --role-wrong: #ff9f8c;
}
.word {
  text-decoration: underline;
  text-underline-offset: 4px;
}
details {
  position: relative;
}
summary {
  cursor: pointer;
}
ul {
  position: absolute;
  bottom: 1.9em;
  left: 0;
  background: #121a20;
  border: 1px solid #5b7482;
  padding: 8px 12px;
  width: max-content;
  max-width: 70vw;
  max-height: 60vh;
  overflow: auto;
}
.keys {
  flex-basis: 100%;
  color: #c3d0d6;
  font-size: 0.85rem;
}
</style>
