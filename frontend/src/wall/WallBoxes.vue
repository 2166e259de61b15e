<script setup lang="ts">
import type { Schemas } from '../api/client'
import PaperRow from '../bench/PaperRow.vue'
import MathLine from '../parts/MathLine.vue'

const props = defineProps<{
  /** The boxes or questions that are seen. */
  boxes: Schemas['BoxView'][]
  /** The place of the one in hand. */
  current: number
  /** Whether its blanks are still to be filled. */
  open: boolean
}>()

/** Whether the blanks of box *i* are open: only those of the one in hand can be. */
const isOpen = (i: number) => props.open && i === props.current
</script>

<template>
  <section v-for="(box, i) in boxes" :key="i" class="box" :data-current="i === current">
    <h2>
      {{ box.title }} <span v-if="box.answer" class="quiet">{{ box.answer }}</span>
    </h2>
    <PaperRow v-for="(row, k) in box.rows" :key="k" :row="{ ...row, hidden: false }" :peek="!isOpen(i)" />
    <p v-for="(jotting, k) in box.jottings" :key="`line ${k}`" class="quiet">
      <span v-if="isOpen(i) && jotting.hidden" class="fill"><span class="sr-only">a jotting to fill in</span></span>
      <MathLine v-else :glyphs="jotting.glyphs" />
    </p>
  </section>
</template>

<style scoped>
.box {
  padding: 0 0 calc(0.4 * var(--square));
}
.box[data-current='false'] {
  opacity: 0.62;
}
h2 {
  font-size: calc(0.6 * var(--square));
}
.fill {
  display: inline-block;
  width: 6em;
  height: 1.1em;
  border: 2px dashed currentColor;
  vertical-align: middle;
}
.quiet {
  color: var(--wall-quiet);
  font-weight: 400;
  font-size: calc(0.5 * var(--square));
  line-height: 1.4;
}
</style>
