<script setup lang="ts">
import { onKeyStroke } from '@vueuse/core'
import Button from 'primevue/button'
import { computed, nextTick, onBeforeUnmount, ref, watch } from 'vue'

import { typing } from '../parts/keys'

/** Five things to know, each beside what it is about; left at any moment, by keys as well. */
const visible = defineModel<boolean>('visible', { required: true })
const STEPS = [
  { at: '.entry', said: 'Type a problem here, like 7 1/4 - 3 5/6. The paper works it while you type; Enter inks it.' },
  { at: '.ladder', said: 'Each problem is a rung. The words between two rungs say what gets harder.' },
  {
    at: '.paper',
    said: 'The working, line by line, as pupils write it. “why?” opens a step: its reason, words, picture.',
  },
  { at: '.margin', said: 'Can it be right? What may pupils write, and how do they come to it? Other ways beside it.' },
  {
    at: '.top',
    said: 'Wall shows it to the class, Handout prints it, Ways says how your class works. ? brings this back.',
  },
] as const
const at = ref(0)
const place = ref({ left: '0px', top: '0px' })
const step = computed(() => STEPS[at.value] ?? STEPS[0])
const next = ref<{ $el: HTMLElement } | null>(null)
const CARD = { width: 340, height: 150 } // pixels
let marked: Element | null = null

function mark(one: Element | null): void {
  marked?.classList.remove('walked')
  marked = one
  marked?.classList.add('walked')
}

watch(
  [visible, at],
  async () => {
    if (!visible.value) return mark(null)
    await nextTick()
    next.value?.$el.focus() // at once: what the browser does with an attribute comes a frame later, or not at all
    const target = document.querySelector(step.value.at)
    mark(target)
    target?.scrollIntoView({ block: 'nearest' })
    const box = target?.getBoundingClientRect()
    if (!box) return
    const right = box.right + CARD.width < window.innerWidth
    const left = right ? box.right + 12 : Math.max(12, Math.min(box.left + 24, window.innerWidth - CARD.width - 12))
    const top = right ? box.top + 12 : box.top + Math.min(80, box.height + 12)
    place.value = { left: `${left}px`, top: `${Math.max(12, Math.min(top, window.innerHeight - CARD.height - 40))}px` }
  },
  { immediate: true },
)

function go(by: number): void {
  if (at.value + by >= STEPS.length) return leave()
  at.value = Math.max(0, at.value + by)
}

function leave(): void {
  visible.value = false
  at.value = 0
}

onKeyStroke('Escape', () => visible.value && leave())
onKeyStroke('ArrowRight', (event) => visible.value && !typing(event) && go(1))
onKeyStroke('ArrowLeft', (event) => visible.value && !typing(event) && go(-1))
onBeforeUnmount(() => mark(null))
</script>

<template>
  <section v-if="visible" class="walk on-paper" role="dialog" aria-label="A walk over the Bench" :style="place">
    <p aria-live="polite">
      <small>{{ at + 1 }} of {{ STEPS.length }}</small
      ><br />{{ step.said }}
    </p>
    <p class="acts">
      <Button ref="next" :label="at === STEPS.length - 1 ? 'Begin' : 'Next'" @click="go(1)" />
      <Button v-if="at" class="word" @click="go(-1)">Back</Button>
      <Button class="word" @click="leave">Leave the walk</Button>
    </p>
  </section>
</template>

<style scoped>
.walk {
  position: fixed;
  z-index: 1000;
  width: min(340px, calc(100vw - 24px));
  background: var(--paper);
  color: var(--ink);
  border: 2px solid var(--ink);
  border-radius: 3px;
  padding: 12px 16px;
  box-shadow: 0 6px 24px rgb(0 0 0 / 35%);
  display: grid;
  gap: 10px;
}
small {
  color: var(--ink-quiet);
}
.acts {
  display: flex;
  gap: 10px;
  align-items: center;
}
</style>
<style>
.walked {
  outline: 4px solid var(--focus);
  outline-offset: -4px;
}
</style>
