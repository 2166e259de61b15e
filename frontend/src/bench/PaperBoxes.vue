<script setup lang="ts">
import type { Working } from '../api/client'
import MathLine from '../parts/MathLine.vue'
import PaperRow from './PaperRow.vue'

defineProps<{
  /** A working in the layout `four-box` or `checklist`. */
  working: Working
  /** Whether what is under the blanks is shown. */
  peek?: boolean
}>()
</script>

<template>
  <PaperRow v-if="working.layout === 'checklist' && working.rows[0]" class="first" :row="working.rows[0]" />
  <ol :class="working.layout">
    <li v-for="(box, i) in working.boxes" :key="i" class="box">
      <h3>
        <span v-if="working.layout === 'checklist'" class="tick" aria-hidden="true">{{ i + 1 }} ✓</span>
        {{ box.title }} <span v-if="box.answer && (peek || !box.hidden)" class="said">{{ box.answer }}</span>
      </h3>
      <PaperRow v-for="(row, k) in box.rows" :key="k" class="written" :row="row" :peek="peek" />
      <p
        v-for="(glyphs, k) in box.hidden && !peek ? [] : box.line_glyphs"
        :key="`line ${k}`"
        class="jotting"
        :class="{ high: glyphs.some((g) => g.kind === 'fraction') }"
      >
        <MathLine :glyphs="glyphs" />
      </p>
    </li>
  </ol>
</template>

<style scoped>
.first {
  margin-bottom: var(--square);
}
.four-box {
  display: grid;
  grid-template-columns: repeat(2, calc(15 * var(--square)));
}
.four-box .box {
  border: 2px solid var(--ink);
  margin: 0 -2px -2px 0;
  padding: calc(var(--square) - 2px) 0 var(--square) calc(var(--square) - 2px);
}
.checklist .box {
  padding-bottom: var(--square);
}
h3 {
  font-size: 1rem;
  line-height: var(--square);
  background: var(--paper);
  width: fit-content;
  padding-right: 6px;
}
.four-box h3 {
  margin-bottom: var(--square);
}
.tick {
  color: var(--role-third);
  font-weight: 700;
}
.said {
  font-weight: 400;
  color: var(--ink-quiet);
  margin-left: 0.6em;
}
.written {
  margin-bottom: var(--square);
}
.checklist .written {
  margin: var(--square) 0 0 var(--square);
}
.jotting {
  color: var(--ink-quiet);
  font-size: 0.95rem;
  line-height: var(--square);
  background: var(--paper);
  width: fit-content;
  max-width: 100%;
  padding-right: 6px;
}
.checklist .jotting {
  margin-left: calc(2 * var(--square));
}
.checklist .written + .jotting {
  margin-top: var(--square);
}
.four-box {
  margin-bottom: var(--square);
}
.high {
  height: calc(2 * var(--square));
  line-height: calc(2 * var(--square));
}
.high :deep(.fraction) {
  line-height: 1.1;
}
@media (max-width: 1180px) {
  .four-box {
    grid-template-columns: 1fr;
  }
}
</style>
