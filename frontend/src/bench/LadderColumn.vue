<script setup lang="ts">
import { computed, nextTick, ref, watch } from 'vue'

import { useBench } from '../stores/bench'
import ClimbChoice from './ClimbChoice.vue'
import LadderRung from './LadderRung.vue'
import PasteProblems from './PasteProblems.vue'

const bench = useBench()
const list = ref<HTMLOListElement | null>(null)
const dragged = ref<string | null>(null)
const over = ref<number | null>(null)
const said = ref('')
const sorting = ref(false)
const bringing = ref(false)

async function focusOn(id: string | undefined): Promise<void> {
  if (!id) return
  await nextTick()
  list.value?.querySelector<HTMLButtonElement>(`[data-id="${id}"] .pick`)?.focus()
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
    await bench.remove(id)
    await focusOn(bench.chosen ?? undefined)
  }
}

async function choose(id: string | undefined): Promise<void> {
  if (!id) return
  await bench.choose(id)
  await focusOn(id)
}

async function drop(): Promise<void> {
  const [id, at] = [dragged.value, over.value]
  dragged.value = over.value = null
  if (id === null || at === null) return
  const from = bench.examples.findIndex((item) => item.id === id)
  await bench.move(id, at > from ? at - 1 : at)
}

function hover(event: DragEvent, index: number): void {
  const box = (event.currentTarget as HTMLElement).getBoundingClientRect()
  over.value = event.clientY > box.top + box.height / 2 ? index + 1 : index
}

// A rung that was just added, or is chosen from elsewhere, comes into view.
watch(
  () => bench.chosen,
  async (id) => {
    await nextTick()
    list.value?.querySelector(`[data-id="${id}"]`)?.scrollIntoView({ block: 'nearest' })
  },
)

/** Whether the ladder steps back or skips a rung somewhere. */
const uneven = computed(() => bench.examples.some((item) => item.mark))
</script>

<template>
  <div class="ladder">
    <p class="tools">
      <RouterLink v-if="bench.set" class="word" :to="{ name: 'ladder', params: { setId: bench.set.id } }"
        >Build to order</RouterLink
      >
      <RouterLink v-if="bench.set" class="word" :to="{ name: 'stories', params: { setId: bench.set.id } }"
        >Stories</RouterLink
      >
      <button class="word" @click="bringing = true">Bring in</button>
      <button v-if="uneven" class="word" @click="sorting = true">Sort into a climb</button>
    </p>
    <ol ref="list" class="rails" aria-label="Examples" @dragover.prevent @drop.prevent="drop">
      <LadderRung
        v-for="(example, i) in bench.examples"
        :key="example.id"
        :example="example"
        :number="i + 1"
        :chosen="example.id === bench.chosen"
        :mark="over === i ? 'above' : over === bench.examples.length && i === over - 1 ? 'below' : null"
        @choose="choose(example.id)"
        @remove="bench.remove(example.id)"
        @keydown="onKey($event, i)"
        @dragstart="dragged = example.id"
        @dragend="dragged = over = null"
        @dragover.prevent="hover($event, i)"
      />
    </ol>
    <p v-if="!bench.examples.length" class="empty">No example yet. Type the first problem below.</p>
    <p class="sr-only" role="status">{{ said }}</p>
    <ClimbChoice v-model:visible="sorting" />
    <PasteProblems v-model:visible="bringing" />
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
    linear-gradient(90deg, transparent 10px, #4b5d69 10px 13px, transparent 13px),
    linear-gradient(270deg, transparent 26px, #4b5d69 26px 29px, transparent 29px);
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
