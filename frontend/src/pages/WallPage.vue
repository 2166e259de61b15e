<script setup lang="ts">
import { ref } from 'vue'

import { useWallScreen } from '../wall/useWallScreen'
import { useWallShow } from '../wall/useWallShow'
import WallBar from '../wall/WallBar.vue'
import WallStage from '../wall/WallStage.vue'

const props = defineProps<{
  setId: string
  /** The example on the wall; where it was left, or the first one, when the address names none. */
  exampleId?: string
}>()
const show = useWallShow(props.setId, props.exampleId)
const wall = ref<HTMLElement | null>(null)
const { chrome, stir, onClick, fullScreen } = useWallScreen(wall, show, {
  n: () => show.go(1),
  p: () => show.go(-1),
  Home: () => show.uncover(false),
  End: () => show.uncover(true),
  w: show.showWrong,
  c: show.nextOfChoices,
  l: () => show.changeLayout(),
  d: () => (show.light = !show.light),
  Escape: show.drop,
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

<style scoped src="../wall/ground.css"></style>
