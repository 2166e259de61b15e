<script setup lang="ts">
import Button from 'primevue/button'
import { computed } from 'vue'

import type { ExampleSummary } from '../api/client'
import MathLine from '../parts/MathLine.vue'

const props = defineProps<{
  example: ExampleSummary
  /** Its place on the ladder, from 1. */
  number: number
  /** Whether it is the one on the paper. */
  chosen: boolean
}>()
defineEmits<{ choose: []; remove: [] }>()

/** What of it pupils fill in. */
const blank = computed(() => {
  const { steps, fading } = props.example
  if (fading.hide && fading.hide >= steps) return 'problem only'
  if (fading.hide) return `last ${fading.hide === 1 ? 'step' : fading.hide} blank`
  return fading.blanks.length ? `${fading.blanks.length} blank` : ''
})
</script>

<template>
  <li :data-id="example.id" class="step">
    <p v-if="example.harder" class="harder" :data-mark="example.mark">
      <strong v-if="example.mark">{{ example.mark === 'jump' ? 'skips a rung' : 'steps back' }}: </strong>now
      {{ example.harder }}
    </p>
    <div class="rung" :data-chosen="chosen" :data-faded="!!blank">
      <Button class="pick" :aria-current="chosen ? 'true' : undefined" @click="$emit('choose')">
        <span class="code">{{ example.rung ?? '' }}</span>
        <span class="sr-only">Number {{ number }}: </span>
        <MathLine class="problem" :glyphs="example.glyphs" :spoken="example.spoken" />
        <span v-if="example.target" class="target">to {{ example.target }}</span>
        <span v-if="blank" class="faded">{{ blank }}</span>
        <span v-if="example.unreadable" class="sr-only">{{ example.unreadable }}</span>
      </Button>
      <Button
        title="Take off the ladder"
        class="off"
        :aria-label="`Take number ${number} off the ladder`"
        @click="$emit('remove')"
      >
        ×
      </Button>
    </div>
  </li>
</template>

<style scoped>
.step {
  position: relative;
  padding: 4px 0;
  /* Of sixty, the ten that are seen are laid out. */
  content-visibility: auto;
  contain-intrinsic-size: auto 64px;
  /* The outline of what has the focus lies outside of it. */
  overflow-clip-margin: 8px;
}
.harder {
  font-size: 0.82rem;
  line-height: 1.3;
  color: var(--on-slate-quiet);
  padding: 2px 34px 4px 40px;
}
.rung {
  position: relative;
  display: flex;
  margin-right: 20px;
  background: var(--rung);
  border-radius: 3px 0 0 3px;
  min-height: 56px;
}
.rung[data-chosen='true'] {
  margin-right: 0;
  background: var(--paper);
  color: var(--ink);
}
.pick {
  flex: 1;
  min-width: 0;
  display: flex;
  align-items: center;
  gap: 10px;
  border: 0;
  background: none;
  color: inherit;
  text-align: left;
  padding: 6px 24px 6px 12px;
  font-size: 1.15rem;
  cursor: grab;
}
.code {
  font-size: 0.78rem;
  width: 1.7em;
  flex: none;
  color: var(--on-slate-quiet);
}
.rung[data-chosen='true'] .code {
  color: var(--ink-quiet);
}
.problem {
  min-width: 0;
  overflow: hidden;
  max-height: 7rem;
}
/* A story takes several lines. */
.problem :deep(.words) {
  font-size: 0.86rem;
  line-height: 1.35;
  display: -webkit-box;
  -webkit-box-orient: vertical;
  -webkit-line-clamp: 4;
  overflow: hidden;
}
.harder[data-mark] {
  color: var(--focus);
}
.rung[data-faded='true'] .pick {
  padding-bottom: 21px;
}
.faded {
  position: absolute;
  left: 12px;
  bottom: 3px;
  font-size: 0.78rem;
  color: var(--on-slate-quiet);
}
.rung[data-chosen='true'] .faded {
  color: var(--ink-quiet);
}
.target {
  font-size: 0.82rem;
  color: inherit;
  opacity: 0.85;
}
.off {
  position: absolute;
  right: 2px;
  top: 2px;
  border: 0;
  background: none;
  color: inherit;
  opacity: 0.85;
  cursor: pointer;
  width: 24px;
  height: 24px;
  line-height: 1;
  font-size: 1.1rem;
  border-radius: 3px;
}
.off:hover {
  opacity: 1;
  background: rgb(128 128 128 / 0.25);
}
</style>
