<script setup lang="ts">
import Button from 'primevue/button'
import { computed, defineAsyncComponent, nextTick, ref, watch } from 'vue'
import { VueDraggable } from 'vue-draggable-plus'

import type { ExampleSummary } from '../api/client'
import { onceOpened } from '../parts/onceOpened'
import { useTold } from '../parts/useTold'

import { useBench } from '../stores/bench'
import { usePaper } from '../stores/paper'
import LadderRung from './LadderRung.vue'

const ClimbChoice = defineAsyncComponent(() => import('./ClimbChoice.vue'))
const PasteProblems = defineAsyncComponent(() => import('./PasteProblems.vue'))
const RungJump = defineAsyncComponent(() => import('./RungJump.vue'))
const MANY = 15 // examples; from so many on one goes to a rung by its name

const bench = useBench()
const paper = usePaper()
const column = ref<HTMLElement | null>(null)
const tell = useTold()
const said = ref('')
const sorting = ref(false)
const bringing = ref(false)
const [sortingMet, bringingMet] = [onceOpened(sorting), onceOpened(bringing)]

async function focusOn(id: string | undefined): Promise<void> {
  if (!id) return
  await nextTick()
  column.value?.querySelector<HTMLElement>(`[data-id="${id}"] .pick`)?.focus()
}

async function onKey(event: KeyboardEvent, index: number): Promise<void> {
  const id = bench.examples[index]?.id
  if (!id) return
  const by = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0
  if (by) {
    event.preventDefault()
    if (event.altKey) {
      await bench.move(id, index + by)
      said.value = `Now number ${bench.examples.findIndex((item) => item.id === id) + 1} of ${bench.examples.length}.`
      await focusOn(id)
    } else {
      await choose(bench.examples[index + by]?.id)
    }
  }
  if (event.key === 'Delete') {
    const example = bench.examples[index]
    if (example) await takeOff(example)
    await focusOn(paper.chosen ?? undefined)
  }
}

async function choose(id: string | undefined): Promise<void> {
  if (!id) return
  await paper.choose(id)
  await focusOn(id)
}

/** The order while a rung is dragged; it is kept when it is let go. */
const order = ref<ExampleSummary[]>([])
watch(
  () => bench.examples,
  (now) => (order.value = [...now]),
  { immediate: true },
)
const dropped = () => bench.reorder(order.value.map((one) => one.id))

async function takeOff(example: ExampleSummary): Promise<void> {
  await bench.remove(example.id)
  if (!bench.examples.some((one) => one.id === example.id)) tell(`${example.text} is off the ladder.`, bench.undo)
}

// A rung that was just added, or is chosen from elsewhere, comes into view; the paper is painted before it does.
watch(
  () => paper.chosen,
  (id) =>
    requestAnimationFrame(() =>
      setTimeout(() => column.value?.querySelector(`[data-id="${id}"]`)?.scrollIntoView({ block: 'nearest' })),
    ),
)

/** Whether the ladder steps back or skips a rung somewhere. */
const uneven = computed(() => bench.examples.some((item) => item.mark))
</script>

<template>
  <div ref="column" class="ladder">
    <p class="tools">
      <RouterLink v-if="bench.set" class="word" :to="{ name: 'ladder', params: { setId: bench.set.id } }"
        >Build to order</RouterLink
      >
      <RouterLink v-if="bench.set" class="word" :to="{ name: 'stories', params: { setId: bench.set.id } }"
        >Stories</RouterLink
      >
      <Button class="word" @click="bringing = true">Bring in</Button>
      <Button v-if="uneven" class="word" @click="sorting = true">Sort into a climb</Button>
    </p>
    <div v-if="bench.examples.length >= MANY" class="go">
      <RungJump :examples="bench.examples" :chosen="paper.chosen" @go="choose" />
    </div>
    <VueDraggable
      v-model="order"
      tag="ol"
      class="rails"
      aria-label="Examples"
      :animation="120"
      :delay="180"
      :delay-on-touch-only="true"
      :force-fallback="true"
      :fallback-tolerance="4"
      ghost-class="dragged"
      @end="dropped"
    >
      <LadderRung
        v-for="(example, i) in order"
        :key="example.id"
        v-memo="[example, i, example.id === paper.chosen]"
        :example="example"
        :number="i + 1"
        :chosen="example.id === paper.chosen"
        @choose="choose(example.id)"
        @remove="takeOff(example)"
        @keydown="onKey($event, i)"
      />
    </VueDraggable>
    <p v-if="!bench.examples.length" class="empty">No example yet. Type the first problem below.</p>
    <p class="sr-only" role="status">{{ said }}</p>
    <ClimbChoice v-if="sortingMet" v-model:visible="sorting" />
    <PasteProblems v-if="bringingMet" v-model:visible="bringing" />
  </div>
</template>

<style scoped>
.ladder {
  overflow-y: auto;
  padding: 4px 0 12px 18px;
  min-height: 0;
}
/* The rails run behind the rungs, and go on below the last one: there is always room for the next. */
.rails {
  min-height: 100%;
  padding: 8px 0 20px;
  background:
    linear-gradient(90deg, transparent 10px, var(--rail) 10px 13px, transparent 13px),
    linear-gradient(270deg, transparent 26px, var(--rail) 26px 29px, transparent 29px);
}
/* It stays where the ladder scrolls below it. */
.go {
  position: sticky;
  top: -4px;
  z-index: 2;
  padding: 4px 20px 6px 0;
  background: var(--slate);
}
.dragged {
  opacity: 0.45;
}
.tools {
  display: flex;
  gap: 4px 12px;
  flex-wrap: wrap;
  padding: 0 20px 4px 0;
  font-size: 0.9rem;
}
.tools .word {
  padding: 2px 0;
  text-decoration-color: var(--on-slate-quiet);
}
.empty {
  color: var(--on-slate-quiet);
  padding: 0 26px 0 6px;
  margin-top: -40vh;
  background: var(--slate);
}
</style>
