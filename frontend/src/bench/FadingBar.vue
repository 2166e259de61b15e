<script setup lang="ts">
import Button from 'primevue/button'
import { computed, ref } from 'vue'

import { client, type Schemas } from '../api/client'
import { useLatest } from '../api/useLatest'
import MathLine from '../parts/MathLine.vue'
import { useBench } from '../stores/bench'
import { usePaper } from '../stores/paper'

const peek = defineModel<boolean>('peek', { required: true })
const blanking = defineModel<boolean>('blanking', { required: true })
const bench = useBench()
const paper = usePaper()
const found = ref<Schemas['ParallelOut'] | null>(null)
const like = ref('')
const { latest } = useLatest()

const hide = computed(() => Math.min(paper.example?.fading.hide ?? 0, paper.example?.steps ?? 0))
const faded = computed(() => hide.value > 0 || !!paper.example?.fading.blanks.length)
const said = computed(() => {
  if (!hide.value) return paper.example?.fading.blanks.length ? `${paper.example.fading.blanks.length} blank` : 'Full'
  if (hide.value === paper.example?.steps) return 'Problem only'
  return hide.value === 1 ? 'Last step blank' : `Last ${hide.value} steps blank`
})

async function fadeBy(by: number): Promise<void> {
  await paper.changeExample(({ fading, steps }) => ({
    fading: { ...fading, hide: Math.max(0, Math.min(steps, Math.min(fading.hide, steps) + by)) },
  }))
}

async function restore(): Promise<void> {
  await paper.changeExample(({ fading }) => ({ fading: { hide: 0, blanks: [], pause: fading.pause } }))
}

/** A problem like the chosen one; asked again, another. */
async function oneLikeThis(): Promise<void> {
  if (!bench.set || !paper.chosen) return
  like.value = paper.chosen
  const path = { set_id: bench.set.id, example_id: paper.chosen }
  const body = { seed: Math.floor(Math.random() * 2 ** 31) }
  const answer = await latest((signal) =>
    client.POST('/api/sets/{set_id}/examples/{example_id}/parallel', { params: { path }, body, signal }),
  )
  if (answer) found.value = answer.ok ? answer.data : null
}

async function take(): Promise<void> {
  const at = bench.examples.findIndex((item) => item.id === paper.chosen)
  const text = found.value?.text
  found.value = null
  if (text && paper.example) await bench.add(text, at + 1, paper.example)
}
</script>

<template>
  <div v-if="paper.example && paper.working" class="fading">
    <span class="fade">
      Pupils see:
      <Button class="word" aria-label="Less in blank" :disabled="hide === 0" @click="fadeBy(-1)">−</Button>
      <strong role="status">{{ said }}</strong>
      <Button class="word" aria-label="More in blank" :disabled="hide === paper.example.steps" @click="fadeBy(1)">
        +
      </Button>
    </span>
    <Button class="word" :aria-pressed="blanking" @click="blanking = !blanking">
      {{ blanking ? 'Done with blanks' : 'Put blanks' }}
    </Button>
    <Button v-if="faded" class="word" :aria-pressed="peek" @click="peek = !peek">
      {{ peek ? 'Cover the blanks' : 'Look under them' }}
    </Button>
    <Button v-if="faded" class="word" @click="restore">All in full</Button>
    <Button class="word" @click="oneLikeThis">One like this</Button>
    <p v-if="blanking" class="hint">Click a number, a factor or a jotting; click it again to bring it back.</p>
    <p v-if="found && like === paper.chosen" class="found" role="status">
      <template v-if="found.text">
        <MathLine class="like" :glyphs="found.glyphs" />
        <span class="quiet">{{
          found.different.length
            ? `differs in ${found.different.join(', ')}`
            : 'the same steps, the same likely wrong answers'
        }}</span>
        <Button class="word" @click="take">Put it below</Button>
        <Button class="word" @click="oneLikeThis">Another</Button>
        <Button class="word" @click="found = null">No</Button>
      </template>
      <template v-else>No other problem of this kind was found.</template>
    </p>
  </div>
</template>

<style scoped>
.fading {
  display: flex;
  flex-wrap: wrap;
  gap: 0 16px;
  align-items: baseline;
  grid-column: 1 / -1;
  font-size: 0.95rem;
}
.fade {
  white-space: nowrap;
}
.fading .word {
  text-decoration: underline;
  text-underline-offset: 3px;
  padding: 0 2px;
}
.fade .word {
  padding: 0 7px;
  font-size: 1.1rem;
}
.fading .word:disabled {
  text-decoration: none;
}
.word[aria-pressed='true'] {
  font-weight: 700;
}
.hint,
.found {
  flex-basis: 100%;
  color: var(--ink-quiet);
}
.found {
  display: flex;
  flex-wrap: wrap;
  gap: 0 14px;
  align-items: center;
  color: var(--ink);
  font-size: 1.05rem;
}
.like {
  max-width: 40rem;
}
.quiet {
  color: var(--ink-quiet);
  font-size: 0.92rem;
}
</style>
