<script setup lang="ts">
import { onKeyStroke, useFullscreen, useSwipe } from '@vueuse/core'
import { onBeforeUnmount, ref } from 'vue'

import { useWallShow } from '../wall/useWallShow'
import WallBar from '../wall/WallBar.vue'
import WallStage from '../wall/WallStage.vue'

const props = defineProps<{
  setId: string
  /** The example on the wall; where it was left, or the first one, when the address names none. */
  exampleId?: string
}>()
const show = useWallShow(props.setId, props.exampleId)
const { toggle: fullScreen } = useFullscreen(document.documentElement)
const wall = ref<HTMLElement | null>(null)
const chrome = ref(false)

const KEYS: Record<string, () => unknown> = {
  ' ': show.forward,
  ArrowRight: show.forward,
  ArrowDown: show.forward,
  PageDown: show.forward,
  Enter: show.forward,
  Backspace: show.back,
  ArrowLeft: show.back,
  ArrowUp: show.back,
  PageUp: show.back,
  n: () => show.go(1),
  p: () => show.go(-1),
  Home: () => show.uncover(false),
  End: () => show.uncover(true),
  w: show.showWrong,
  c: show.nextOfChoices,
  l: () => show.changeLayout(),
  d: () => (show.light = !show.light),
  f: fullScreen,
  Escape: show.drop,
}
onKeyStroke(Object.keys(KEYS), (event) => {
  if (event.ctrlKey || event.metaKey || event.altKey) return
  const inBar = event.target instanceof HTMLElement && !!event.target.closest('button, [role=combobox], [role=option]')
  if (inBar && [' ', 'Enter', 'ArrowUp', 'ArrowDown'].includes(event.key)) return
  event.preventDefault()
  void KEYS[event.key]?.()
})

let hiding: ReturnType<typeof setTimeout> | undefined
function stir(): void {
  chrome.value = true
  clearTimeout(hiding)
  hiding = setTimeout(() => (chrome.value = false), 3500)
}
onBeforeUnmount(() => clearTimeout(hiding))

/** A tap: on the left edge one line back, anywhere else the next. */
function onClick(event: MouseEvent): void {
  void (event.clientX < window.innerWidth / 8 ? show.back() : show.forward())
}
// A finger drawn to the right takes a line back, to the left it uncovers the next.
useSwipe(wall, {
  onSwipeEnd: (_, direction) => {
    if (direction === 'left') void show.forward()
    if (direction === 'right') void show.back()
  },
})
</script>

<template>
  <main ref="wall" class="wall" :data-light="show.light" @mousemove="stir" @focusin="stir">
    <p v-if="show.refusal" class="note" role="alert">
      {{ show.refusal.message }} {{ show.refusal.hint }} <RouterLink to="/">Shelf</RouterLink>
    </p>
    <p v-else-if="show.set && !show.examples.length" class="note">
      This set has no example yet. <RouterLink :to="{ name: 'bench', params: { setId } }">Bench</RouterLink>
    </p>
    <WallStage v-else :set-id="setId" :show="show" @click="onClick" />
    <WallBar v-if="show.working && show.example" v-show="chrome" :set-id="setId" :show="show" @full="fullScreen" />
  </main>
</template>

<style scoped>
/* A digit of a fraction is 1/14 of the screen's height or more, and nothing here ever makes it smaller. */
.wall {
  --square: calc(100vh / 14);
  --half: calc(var(--square) / 2);
  --half-x: calc(0.47 * var(--square));
  --wall-quiet: #c3d0d6;
  height: 100vh;
  overflow: hidden;
  position: relative;
  background: #202a33;
  color: #f3f5f2;
}
.wall[data-light='false'] {
  --role-first: #8cc5f5;
  --role-second: #f7b45c;
  --role-third: #86d4b5;
  --role-fourth: #d3b8f0;
  --role-fifth: #f2a9c0;
  --role-sixth: #d8cf94;
  --role-carried: #dfa9de;
  --role-wrong: #ff9f8c;
  --role-answer: #f3f5f2;
  --paper: #202a33;
  --ink-quiet: #c3d0d6;
}
.wall[data-light='true'] {
  background: var(--paper);
  color: var(--ink);
  --wall-quiet: var(--ink-quiet);
}
/* On a phone it is the width that counts. */
@media (max-width: 760px) {
  .wall {
    --square: min(calc(100vh / 14), calc(100vw / 13));
  }
}
.note {
  padding: 4rem;
  font-size: 1.3rem;
}
</style>
