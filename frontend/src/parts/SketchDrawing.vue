<script setup lang="ts">
import type { Schemas } from '../api/client'

defineProps<{
  drawing: Schemas['Drawing']
  /** The same in a line. */
  said: string
}>()

const DIGIT = 11
</script>

<template>
  <svg
    class="sketch"
    :viewBox="`-1 0 ${drawing.width + 2} ${drawing.height}`"
    :style="{ height: `${drawing.height / 18}em` }"
    role="img"
    :aria-label="said"
  >
    <text v-for="(text, i) in drawing.texts" :key="i" :x="text.x" :y="text.y" :textLength="text.text.length * DIGIT">
      {{ text.text }}
    </text>
    <path v-for="(line, i) in drawing.lines" :key="`line ${i}`" :d="`M${line[0]} ${line[1]}L${line[2]} ${line[3]}`" />
    <ellipse v-for="(ring, i) in drawing.rings" :key="`ring ${i}`" :cx="ring[0]" :cy="ring[1]" :rx="ring[2]" ry="10" />
  </svg>
</template>

<style scoped>
.sketch {
  vertical-align: middle;
  overflow: visible;
  margin-right: 1.2em;
}
text {
  font-size: 17px;
  fill: currentColor;
}
path,
ellipse {
  fill: none;
  stroke: currentColor;
  stroke-width: 1.4;
}
</style>
