<script setup lang="ts">
import { computed, nextTick, ref, watch } from 'vue'

import FigureDrawing from '../parts/FigureDrawing.vue'
import MathLine from '../parts/MathLine.vue'
import { useTimer } from './useTimer'
import type { WallShow } from './useWallShow'
import WallChoices from './WallChoices.vue'
import WallWorking from './WallWorking.vue'
import WallWrong from './WallWrong.vue'

const props = defineProps<{ setId: string; show: WallShow }>()
const lines = ref<HTMLElement | null>(null)
const { seconds } = useTimer(
  () => props.setId,
  () => props.show.chosen,
)
const clock = (time: number) => `${Math.floor(time / 60)}:${String(time % 60).padStart(2, '0')}`
const asking = computed(() => !!props.show.item || !!props.show.options)
/** Whether a picture, or what is written at this moment, stands beside the lines. */
const beside = computed(
  () => (!!props.show.figure || !!props.show.moment) && props.show.isTold('calculation') && !asking.value,
)
/**
 * The longest line that will come, in half squares, and how many there will be: they settle the size of all of them.
 */
const size = computed(() => {
  const working = props.show.working
  const rows = working?.boxes.length ? working.boxes.flatMap((box) => box.rows) : (working?.rows ?? [])
  const { sheet } = working ?? {}
  return {
    '--cols': Math.max(12, sheet?.width ?? 0, ...(sheet ? [] : rows.map((row) => row.width))),
    '--lines': sheet ? sheet.height / 5 : rows.length,
  }
})

// The line in hand stays in sight: finished lines scroll away above it.
watch([() => props.show.at, () => props.show.working], async () => {
  await nextTick()
  const inHand = lines.value?.querySelectorAll('[data-current=true], .whole, .label') ?? []
  inHand[inHand.length - 1]?.scrollIntoView({ block: 'end' })
})
</script>

<template>
  <div v-if="show.working && show.example" class="stage">
    <div class="work" :data-wrong="asking" :data-alone="!beside" :style="size">
      <div ref="lines" class="lines" aria-live="polite">
        <WallChoices
          v-if="show.options && show.working.rows[0]"
          :problem="show.working.rows[0]"
          :choices="show.working.choices"
          :told="show.options === 'told'"
        />
        <WallWrong
          v-else-if="show.item"
          :set-id="setId"
          :example-id="show.example.id"
          :problem="show.working.rows[0]"
          :item="show.item"
          :resolved="!!show.wrong?.resolved"
        />
        <WallWorking v-else :show="show" :working="show.working" />
      </div>
      <div v-if="beside" class="side">
        <figure v-if="show.figure" class="card paper-inks">
          <FigureDrawing :figure="show.figure" :state="show.state" />
        </figure>
        <p v-if="show.moment && !show.isOpen(show.current)" class="quiet moment">
          <MathLine :glyphs="show.moment.title_glyphs" />
        </p>
      </div>
    </div>
    <div v-if="show.cover" class="cover">
      <p>{{ show.cover }}</p>
    </div>
    <footer class="foot">
      <span>{{ show.index + 1 }} of {{ show.examples.length }}</span>
      <span class="title">{{ show.set?.title }}</span>
      <span role="timer" aria-live="off">{{ clock(seconds) }} of {{ clock(show.example.seconds) }}</span>
    </footer>
  </div>
</template>

<style scoped src="./wall.css"></style>
