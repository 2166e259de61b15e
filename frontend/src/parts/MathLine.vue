<script setup lang="ts">
import { computed } from 'vue'

import type { Glyph, Schemas } from '../api/client'
import SketchDrawing from './SketchDrawing.vue'

const props = defineProps<{
  /** The pieces, as the core returns them. */
  glyphs: Glyph[]
  /** What a screen reader says in their place. */
  spoken?: string
}>()

/** The pieces, each with the full stop or comma that must not leave it for the next line. */
const pieces = computed(() => {
  const last = props.glyphs.length - 1
  return props.glyphs.map((glyph, i) => {
    const own = i ? (glyph.text ?? '').replace(CLOSING, '') : glyph.text
    const next = i < last ? (props.glyphs[i + 1]?.text ?? '') : ''
    return { ...glyph, text: own, closing: CLOSING.exec(next)?.[0] ?? '' }
  })
})
const CLOSING = /^[.,;:!?]/

/** The pieces in groups that stay on one line: a whole number with the fraction that follows it. */
const groups = computed(() => {
  const made: (typeof pieces.value)[] = []
  for (const piece of pieces.value) {
    const before = made.at(-1)?.at(-1)
    if (piece.kind === 'fraction' && before?.kind === 'number' && !before.closing) made.at(-1)?.push(piece)
    else made.push([piece])
  }
  return made
})

/** What is drawn in the place of a piece of a jotting. */
const drawingOf = (glyph: Glyph | Schemas['JottingGlyph']) => ('drawing' in glyph ? glyph.drawing : null)
</script>

<template>
  <span class="math">
    <span v-if="spoken" class="sr-only">{{ spoken }}</span>
    <span class="line" :aria-hidden="spoken ? 'true' : undefined">
      <template v-for="(group, g) in groups" :key="g">
        <span :class="{ kept: group.length > 1 }"
          ><template v-for="(glyph, i) in group" :key="i"
            ><span v-if="glyph.kind === 'fraction'" class="kept"
              ><span class="fraction" :data-role="glyph.role">
                <span class="top">{{ glyph.top }}</span>
                <span class="sr-only"> over </span>
                <span class="bottom">{{ glyph.bottom }}</span></span
              >{{ glyph.closing }}</span
            ><SketchDrawing v-else-if="drawingOf(glyph)" :drawing="drawingOf(glyph)!" :said="glyph.text ?? ''" /><span
              v-else
              :class="{ kept: glyph.kind !== 'words' }"
              ><span :class="glyph.kind" :data-role="glyph.role">{{ glyph.text }}</span
              >{{ glyph.closing }}</span
            ></template
          ></span
        ><wbr v-if="group.at(-1)?.kind === 'operator'" />
      </template>
    </span>
  </span>
</template>

<style scoped>
.math {
  display: inline;
}
.line {
  white-space: pre-wrap;
}
.kept {
  white-space: nowrap;
}
.number,
.fraction {
  color: var(--role);
}
.operator {
  margin: 0 0.3em;
}
.recurring {
  display: inline-block;
  line-height: 0.85;
  border-top: 0.08em solid currentColor;
  color: var(--role);
}
.power {
  font-size: 0.65em;
  vertical-align: super;
}
.fraction {
  display: inline-flex;
  flex-direction: column;
  vertical-align: middle;
  text-align: center;
  line-height: 1.12;
  font-size: 0.82em;
  margin: 0.1em 0.12em;
}
.top {
  border-bottom: 0.09em solid currentColor;
  padding: 0 0.15em;
}
.bottom {
  padding: 0.05em 0.15em 0;
}
/* There a plate is laid behind every text, and the bar would lie below that of the denominator. */
@media (forced-colors: active) {
  .fraction {
    forced-color-adjust: preserve-parent-color;
    color: inherit;
  }
}
</style>
