<script setup lang="ts">
import Button from 'primevue/button'
import { computed, ref } from 'vue'

import type { Choices } from '../api/client'
import RungSelect from '../parts/RungSelect.vue'
import { withEntry } from '../parts/withEntry'

/** The climb that is wished for, drawn as a stair: as many problems on a step as it is wide. */
const chosen = defineModel<Record<string, number>>({ required: true })
const props = defineProps<{
  rungs: Choices['rungs']
  /** How many problems there are on each rung that is wished for. */
  counts: Record<string, number>
}>()

const MOST = 20 // problems on a step
const PULL = 26 // pixels for each problem more
const steps = computed(() => props.rungs.filter((rung) => chosen.value[rung.code]))
const others = computed(() => props.rungs.filter((rung) => !chosen.value[rung.code]))
const pulled = ref<{ code: string; from: number; at: number } | null>(null)

function put(code: string, count: number): void {
  chosen.value = withEntry(chosen.value, code, Math.min(MOST, Math.max(0, count)))
}

function take(event: PointerEvent, code: string): void {
  pulled.value = { code, from: chosen.value[code] ?? 1, at: event.clientX }
  ;(event.currentTarget as HTMLElement).setPointerCapture(event.pointerId)
}

function pull(event: PointerEvent): void {
  if (!pulled.value) return
  const { code, from, at } = pulled.value
  put(code, Math.max(1, from + Math.round((event.clientX - at) / PULL)))
}

function key(event: KeyboardEvent, code: string): void {
  const now = chosen.value[code] ?? 0
  const to = { ArrowRight: now + 1, ArrowUp: now + 1, ArrowLeft: now - 1, ArrowDown: now - 1, Delete: 0 }[event.key]
  if (to === undefined) return
  event.preventDefault()
  if (to > 0 || event.key === 'Delete') put(code, to)
}
</script>

<template>
  <section class="stair" aria-label="The stair">
    <ol>
      <li
        v-for="(rung, i) in steps"
        :key="rung.code"
        class="step"
        :style="{ '--wide': chosen[rung.code], '--up': i + 1, '--of': steps.length }"
      >
        <div
          class="tread"
          role="slider"
          tabindex="0"
          :aria-label="`Problems on: ${rung.name}`"
          :aria-valuenow="chosen[rung.code]"
          aria-valuemin="1"
          :aria-valuemax="MOST"
          @keydown="key($event, rung.code)"
        >
          <strong>{{ chosen[rung.code] }}</strong>
          <span
            title="Pull to widen"
            class="edge"
            aria-hidden="true"
            @pointerdown="take($event, rung.code)"
            @pointermove="pull"
            @pointerup="pulled = null"
            @pointercancel="pulled = null"
          />
        </div>
      </li>
    </ol>
    <ul class="words">
      <li v-for="rung in steps" :key="rung.code">
        <span class="what"
          >{{ rung.name }} <small>{{ rung.code }}</small></span
        >
        <small v-if="counts[rung.code] !== undefined" class="there" :data-none="counts[rung.code] === 0"
          >{{ counts[rung.code]?.toLocaleString('en') }} such problems</small
        >
        <Button
          class="word"
          :aria-label="`One less: ${rung.name}`"
          @click="put(rung.code, (chosen[rung.code] ?? 0) - 1)"
          >−</Button
        >
        <strong>{{ chosen[rung.code] }}</strong>
        <Button
          class="word"
          :aria-label="`One more: ${rung.name}`"
          @click="put(rung.code, (chosen[rung.code] ?? 0) + 1)"
          >+</Button
        >
      </li>
    </ul>
    <RungSelect
      class="add"
      :model-value="null"
      :rungs="others"
      label="Add a step"
      placeholder="Add a step: which rung?"
      @update:model-value="$event && put($event, 1)"
    />
  </section>
</template>

<style scoped>
.stair {
  display: grid;
  gap: 8px;
}
ol {
  display: flex;
  align-items: flex-end;
  height: 108px;
  gap: 2px;
  border-bottom: 3px solid var(--on-slate);
}
.step {
  flex: var(--wide) 1 0;
  min-width: 22px;
  height: calc(26px + 80px * var(--up) / var(--of));
}
.tread {
  height: 100%;
  position: relative;
  background: var(--rung);
  border-top: 4px solid var(--on-slate);
  border-left: 2px solid var(--on-slate);
  text-align: center;
  padding-top: 1px;
  cursor: default;
}
.edge {
  position: absolute;
  right: -5px;
  top: -4px;
  bottom: 0;
  width: 12px;
  cursor: ew-resize;
  touch-action: none;
}
.edge:hover {
  background: var(--focus);
  opacity: 0.5;
}
.words li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto 1.6em 1.2em 1.6em;
  gap: 6px;
  align-items: baseline;
  padding: 1px 0;
}
small {
  color: var(--on-slate-quiet);
}
.there[data-none='true'] {
  color: var(--on-slate-refused);
  font-weight: 700;
}
.words strong,
.words .word {
  text-align: center;
  padding: 0;
}
.words .word {
  font-size: 1.1rem;
}
.add {
  width: min(22rem, 100%);
}
</style>
