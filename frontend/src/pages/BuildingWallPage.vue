<script setup lang="ts">
import Button from 'primevue/button'
import { nextTick, ref, watch } from 'vue'

import { useBuildingShow } from '../building/useBuildingShow'
import MathLine from '../parts/MathLine.vue'
import { useWallScreen } from '../wall/useWallScreen'

const props = defineProps<{ numbers: string; wanted: string }>()
const show = useBuildingShow(props.numbers, props.wanted)
const wall = ref<HTMLElement | null>(null)
const back = { name: 'building', query: { numbers: props.numbers, wanted: props.wanted } }
const { chrome, stir, onClick, fullScreen } = useWallScreen(wall, show, {
  n: () => show.go(1),
  p: () => show.go(-1),
  Home: () => show.uncover(false),
  End: () => show.uncover(true),
  d: () => (show.light = !show.light),
})

// The line in hand stays in sight.
const ways = ref<HTMLElement | null>(null)
watch(
  () => show.at,
  async () => {
    await nextTick()
    ways.value?.lastElementChild?.scrollIntoView({ block: 'nearest' })
  },
)
</script>

<template>
  <main ref="wall" class="wall" :data-light="show.light" @mousemove="stir" @focusin="stir">
    <p v-if="show.refusal" class="note" role="alert">
      {{ show.refusal.message }} {{ show.refusal.hint }} <RouterLink :to="back">Number building</RouterLink>
    </p>
    <div v-else-if="show.built" class="stage" @click="onClick">
      <div class="task">
        <p>
          Build <strong><MathLine :glyphs="show.built.wanted_glyphs" /></strong> from
        </p>
        <p class="numbers">
          <span v-for="(glyphs, i) in show.built.number_glyphs" :key="i" class="number"
            ><MathLine :glyphs="glyphs"
          /></span>
        </p>
        <p class="rule">With <span class="kept">+ − × ÷</span>, each number at most once.</p>
      </div>
      <div ref="ways" class="ways" aria-live="polite">
        <p v-if="show.impossible" class="rule">
          It cannot be built. The nearest is <MathLine :glyphs="show.built.nearest_glyphs" />.
        </p>
        <template v-if="show.way">
          <p class="rule">Way {{ (show.press?.way ?? 0) + 1 }} of {{ show.built.ways.length }}</p>
          <p class="line"><span></span><MathLine :glyphs="show.way.glyphs" /></p>
          <p v-for="(line, i) in show.lines" :key="i" class="line"><span>=</span> <MathLine :glyphs="line" /></p>
        </template>
        <p v-if="show.asks" class="asked">{{ show.asks }}</p>
      </div>
    </div>
    <nav v-if="show.built" v-show="chrome" class="bar" aria-label="Wall">
      <Button class="word" @click="show.back()">Line back</Button>
      <Button class="word" @click="show.forward()">Next line</Button>
      <Button class="word" @click="show.go(1)">Next way</Button>
      <Button class="word" @click="show.uncover(!show.done)">{{ show.done ? 'Cover all' : 'Uncover all' }}</Button>
      <Button class="word" @click="show.light = !show.light">{{ show.light ? 'Dark' : 'Light' }}</Button>
      <Button class="word" @click="fullScreen">Full screen</Button>
      <RouterLink class="word" :to="back">Number building</RouterLink>
      <span class="keys"
        >Space or a click: next line · Backspace: back · N, P: ways · D: light or dark · F: full screen</span
      >
    </nav>
  </main>
</template>

<style scoped src="../wall/ground.css"></style>
<style scoped src="../wall/bar.css"></style>
<style scoped src="../building/wall.css"></style>
