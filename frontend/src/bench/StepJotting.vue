<script setup lang="ts">
import Button from 'primevue/button'
import { computed } from 'vue'

import type { Schemas } from '../api/client'
import MathLine from '../parts/MathLine.vue'

type Piece = Schemas['JottingGlyph']

const props = defineProps<{
  /** The pieces of the jotting; a number has its key. */
  glyphs: Piece[]
  /** The key of the whole jotting. */
  lineKey: string
  /** Whether pupils fill in all of it. */
  hidden: boolean
  /** Whether a click makes a blank. */
  blanking?: boolean
  /** Whether what is under the blanks is shown. */
  peek?: boolean
}>()
defineEmits<{ blank: [key: string] }>()

/** Pieces that go together: a number of two pieces, like a mixed one, is one blank. */
const parts = computed(() => {
  const found: { key: string | null; pieces: Piece[] }[] = []
  for (const piece of props.glyphs) {
    const key = piece.key ?? null
    const last = found.at(-1)
    if (last && key && last.key === key) last.pieces.push(piece)
    else found.push({ key, pieces: [piece] })
  }
  return found
})
</script>

<template>
  <p
    class="jotting"
    :class="{ high: glyphs.some((g) => g.kind === 'fraction'), drawn: glyphs.some((g) => g.drawing) }"
    :data-hidden="hidden && !peek"
  >
    <template v-if="blanking">
      <Button
        v-for="(part, i) in parts"
        :key="i"
        class="piece"
        :aria-label="part.key ? 'Blank this number or leave it' : 'Blank this jotting or leave it'"
        @click="$emit('blank', part.key ?? lineKey)"
      >
        <MathLine :glyphs="part.pieces" />
      </Button>
    </template>
    <span v-else-if="hidden && !peek" class="fill"><span class="sr-only">a jotting to fill in</span></span>
    <MathLine v-else :glyphs="glyphs" />
  </p>
</template>

<style scoped>
.jotting {
  color: var(--ink-quiet);
  font-size: 0.95rem;
  line-height: var(--square);
  width: fit-content;
  max-width: 100%;
  padding-right: 6px;
}
.high {
  height: calc(2 * var(--square));
  line-height: calc(2 * var(--square));
}
.drawn {
  display: inline-block;
  vertical-align: top;
  padding: 4px 6px 4px 0;
}
.high :deep(.fraction) {
  line-height: 1.1;
}
.piece {
  border: 0;
  padding: 0;
  background: none;
  color: inherit;
  font: inherit;
  cursor: pointer;
  white-space: pre-wrap;
  text-align: left;
}
.piece:hover {
  background: var(--shade);
}
.jotting[data-hidden='true'] .piece {
  opacity: 0.45;
}
.fill {
  display: inline-block;
  width: calc(7 * var(--square));
  height: calc(var(--square) - 4px);
  border: 1.5px dashed var(--ink-quiet);
  border-radius: 3px;
  vertical-align: middle;
}
</style>
