<script setup lang="ts">
import Button from 'primevue/button'
import PickOne from '../parts/PickOne.vue'
import MathLine from '../parts/MathLine.vue'
import type { WallShow } from './useWallShow'

const props = defineProps<{ setId: string; show: WallShow }>()
defineEmits<{ full: [] }>()
const show = props.show // one for the page's life
</script>

<template>
  <nav class="bar" aria-label="Wall">
    <Button class="word" :disabled="show.index === 0" @click="show.go(-1)">Example before</Button>
    <Button class="word" @click="show.back()">Line back</Button>
    <Button class="word" @click="show.forward()">Next line</Button>
    <Button class="word" :disabled="show.index === show.examples.length - 1" @click="show.go(1)">Next example</Button>
    <Button class="word" @click="show.uncover(!show.done)">{{ show.done ? 'Cover all' : 'Uncover all' }}</Button>
    <details v-if="show.wrongs.length">
      <summary>What happened here?</summary>
      <ul>
        <li v-for="(item, i) in show.wrongs" :key="item.code">
          <Button class="word" @click="show.wrong = { index: i, resolved: false }">
            <MathLine :glyphs="item.glyphs" :spoken="item.answer" /> {{ item.name }}
          </Button>
        </li>
      </ul>
    </details>
    <PickOne
      label="Layout"
      :model-value="show.working?.layout ?? ''"
      :options="show.layouts"
      @update:model-value="show.changeLayout($event)"
    />
    <Button class="word" @click="show.light = !show.light">{{ show.light ? 'Dark' : 'Light' }}</Button>
    <Button class="word" @click="$emit('full')">Full screen</Button>
    <RouterLink class="word" :to="{ name: 'bench', params: { setId } }">Bench</RouterLink>
    <span class="keys"
      >Space or a click: next line · Backspace: back · N, P: examples · W: what happened here · C: four to choose from ·
      L: layout · D: light or dark · F: full screen</span
    >
  </nav>
</template>

<style scoped src="./bar.css"></style>
