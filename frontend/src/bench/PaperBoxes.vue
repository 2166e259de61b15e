<script setup lang="ts">
import type { Working } from '../api/client'
import PaperRow from './PaperRow.vue'
import StepJotting from './StepJotting.vue'

defineProps<{
  /** A working in the layout `four-box` or `checklist`. */
  working: Working
  /** Whether a click on a number makes it a blank. */
  blanking?: boolean
  /** Whether what is under the blanks is shown. */
  peek?: boolean
}>()
defineEmits<{ blank: [key: string] }>()
</script>

<template>
  <PaperRow
    v-if="working.layout === 'checklist' && working.rows[0]"
    class="first"
    :row="working.rows[0]"
    :blanking="blanking"
    :peek="peek"
    @blank="$emit('blank', $event)"
  />
  <ol :class="working.layout">
    <li v-for="(box, i) in working.boxes" :key="i" class="box">
      <h3>
        <span v-if="working.layout === 'checklist'" class="tick" aria-hidden="true">{{ i + 1 }} ✓</span>
        {{ box.title }} <span v-if="box.answer && (peek || !box.hidden)" class="said">{{ box.answer }}</span>
      </h3>
      <PaperRow
        v-for="(row, k) in box.rows"
        :key="k"
        class="written"
        :row="row"
        :blanking="blanking"
        :peek="peek"
        @blank="$emit('blank', $event)"
      />
      <StepJotting
        v-for="(jotting, k) in box.jottings"
        :key="`line ${k}`"
        :glyphs="jotting.glyphs"
        :line-key="jotting.key"
        :hidden="jotting.hidden"
        :blanking="blanking && !!jotting.key"
        :peek="peek"
        @blank="$emit('blank', $event)"
      />
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
.checklist .jotting {
  margin-left: calc(2 * var(--square));
}
.checklist .written + .jotting {
  margin-top: var(--square);
}
.four-box {
  margin-bottom: var(--square);
}
@media (max-width: 1180px) {
  .four-box {
    grid-template-columns: 1fr;
  }
}
</style>
