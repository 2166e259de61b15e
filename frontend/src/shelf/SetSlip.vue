<script setup lang="ts">
import Button from 'primevue/button'
import { computed } from 'vue'
import { RouterLink } from 'vue-router'

import type { SetSummary } from '../api/client'
import MathLine from '../parts/MathLine.vue'
import StairDrawing from './StairDrawing.vue'
import type { Place } from './useShelf'

const props = defineProps<{
  set: SetSummary
  /** Where it lies; a colleague's lies nowhere here. */
  place?: Place
  /** Whether it is a line of a list. */
  compact?: boolean
  /** The colleague whose it is. */
  by?: string
  /** The page where a colleague's set is read. */
  readAt?: string
}>()
defineEmits<{ put: [to: Place]; duplicate: [] }>()

const PLACES: { code: Place; name: string; where: string }[] = [
  { code: 'archive', name: 'Archive', where: 'into the archive' },
  { code: 'shelf', name: 'Back on the shelf', where: 'back on the shelf' },
  { code: 'bin', name: 'Bin', where: 'into the bin' },
]
const day = (date: string) => new Date(date).toLocaleDateString(undefined, { day: 'numeric', month: 'long' })
const way = computed(() =>
  props.readAt
    ? { href: props.readAt, target: '_blank', rel: 'noopener' }
    : { to: { name: 'bench', params: { setId: props.set.id } } },
)
const count = computed(() => `${props.set.examples} ${props.set.examples === 1 ? 'example' : 'examples'}`)
const minutes = computed(() => `about ${Math.max(1, Math.round(props.set.seconds / 60))} minutes`)
const climb = computed(() => props.set.climb.join(' → '))
const whom = computed(() => [props.set.objective, ...props.set.standards, ...props.set.classes].filter(Boolean))
const when = computed(() =>
  props.set.shown_on ? `on the wall ${day(props.set.shown_on)}` : `changed ${day(props.set.changed_at)}`,
)
</script>

<template>
  <li class="slip" :data-compact="compact">
    <component :is="readAt ? 'a' : RouterLink" v-bind="way" class="sheet on-paper">
      <h2>{{ set.title }}</h2>
      <span class="first">
        <MathLine v-for="(glyphs, i) in set.first" :key="i" :glyphs="glyphs" />
        <span v-if="set.examples > set.first.length" aria-hidden="true">…</span>
      </span>
      <StairDrawing v-if="set.stair.length" class="climb" :stair="set.stair" />
      <span class="about"
        >{{ count }}<template v-if="set.examples">, {{ minutes }}</template></span
      >
      <span class="when">{{ when }}</span>
      <span v-if="climb" class="for">{{ climb }}</span>
      <span v-if="by" class="for">from {{ by }}</span>
      <span v-if="whom.length" class="for">for {{ whom.join(' · ') }}</span>
    </component>
    <p class="acts">
      <slot />
      <template v-if="place">
        <Button
          v-if="place === 'shelf'"
          class="word"
          :aria-label="`Duplicate ${set.title}`"
          @click="$emit('duplicate')"
        >
          Duplicate
        </Button>
        <Button
          v-for="to in PLACES.filter((one) => one.code !== place)"
          :key="to.code"
          class="word"
          :aria-label="`Put ${set.title} ${to.where}`"
          @click="$emit('put', to.code)"
        >
          {{ to.name }}
        </Button>
      </template>
    </p>
  </li>
</template>

<style scoped>
/* A slip of plain paper for each set, with the margin rule of an exercise book: it is read, not written on. */
.sheet {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 2px 24px;
  align-items: center;
  color: var(--ink);
  text-decoration: none;
  padding: 14px 24px 14px 56px;
  border-radius: 2px;
  background: linear-gradient(90deg, transparent 38px, var(--margin-rule) 38px 40px, transparent 40px), var(--paper);
}
.sheet:hover h2 {
  text-decoration: underline;
  text-underline-offset: 0.2em;
}
h2 {
  font-size: 1.2rem;
}
.first {
  grid-column: 1;
  display: flex;
  flex-wrap: wrap;
  gap: 4px 28px;
  font-size: 1.15rem;
  align-items: center;
  min-height: 44px;
}
.climb {
  grid-column: 2;
  grid-row: 1 / span 2;
  justify-self: end;
}
.about,
.when,
.for {
  color: var(--ink-quiet);
  width: fit-content;
  font-size: 0.95rem;
}
.about,
.when {
  grid-column: 2;
  justify-self: end;
}
.for {
  grid-column: 1;
}
.about {
  grid-row: 3;
}
.when {
  grid-row: 4;
}
.acts {
  display: flex;
  gap: 4px 12px;
  justify-content: flex-end;
  font-size: 0.9rem;
  color: var(--on-slate-quiet);
}
/* A line of a list, where there are many. */
[data-compact='true'] .sheet {
  grid-template-columns: minmax(0, 1fr) 112px 13.5rem 10.5rem;
  padding: 5px 16px 5px 56px;
}
[data-compact='true'] .first,
[data-compact='true'] .for {
  display: none;
}
[data-compact='true'] h2 {
  font-size: 1.02rem;
  width: fit-content;
}
[data-compact='true'] :is(.climb, .about, .when) {
  grid-row: 1;
}
[data-compact='true'] .climb {
  height: 22px;
}
[data-compact='true'] .about {
  grid-column: 3;
}
[data-compact='true'] .when {
  grid-column: 4;
}
.slip[data-compact='true'] {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 13.5rem;
  gap: 8px;
  align-items: center;
}
@media (max-width: 760px) {
  .sheet,
  [data-compact='true'] .sheet,
  .slip[data-compact='true'] {
    grid-template-columns: minmax(0, 1fr);
    padding-right: 12px;
  }
  .sheet > *,
  [data-compact='true'] .sheet > * {
    grid-column: 1 !important;
    grid-row: auto !important;
    justify-self: start !important;
  }
}
</style>
