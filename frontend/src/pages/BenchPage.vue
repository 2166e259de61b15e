<script setup lang="ts">
import { onKeyStroke, useLocalStorage } from '@vueuse/core'
import { defineAsyncComponent, onMounted, ref, watch } from 'vue'
import { useRouter } from 'vue-router'

import { ask, client } from '../api/client'
import ConflictChoice from '../bench/ConflictChoice.vue'
import EntryLine from '../bench/EntryLine.vue'
import LadderColumn from '../bench/LadderColumn.vue'
import MarginColumn from '../bench/MarginColumn.vue'
import PaperSheet from '../bench/PaperSheet.vue'
import TopLine from '../bench/TopLine.vue'
import { typing } from '../parts/keys'
import { onceOpened } from '../parts/onceOpened'
import { useBench } from '../stores/bench'
import { usePaper } from '../stores/paper'

const props = defineProps<{
  /** The set on the Bench. */
  setId: string
  /** The example on the paper; the first one when the address names none. */
  exampleId?: string
}>()
const BenchWalk = defineAsyncComponent(() => import('../bench/BenchWalk.vue'))
const HelpPanel = defineAsyncComponent(() => import('../bench/HelpPanel.vue'))
const SetPanel = defineAsyncComponent(() => import('../set/SetPanel.vue'))
const WaysPanel = defineAsyncComponent(() => import('../ways/WaysPanel.vue'))

const bench = useBench()
const paper = usePaper()
const router = useRouter()
const helpShown = ref(false)
const waysShown = ref(false)
const wholeShown = ref(false)
// What opens beside the paper is loaded when it is first wanted.
const [helpMet, waysMet, wholeMet] = [onceOpened(helpShown), onceOpened(waysShown), onceOpened(wholeShown)]
const entry = ref<InstanceType<typeof EntryLine> | null>(null)

watch(() => props.setId, openSet, { immediate: true })

async function openSet(): Promise<void> {
  await bench.open(props.setId)
  const wanted = bench.examples.find((item) => item.id === props.exampleId) ?? bench.examples[0]
  await paper.choose(wanted?.id ?? null)
}

// The address follows the choice, so that a reload comes back to the same example.
watch(
  () => paper.chosen,
  (id) => {
    if (bench.set?.id === props.setId && (id ?? '') !== (props.exampleId ?? '')) {
      void router.replace({ name: 'bench', params: { setId: props.setId, exampleId: id ?? '' } })
    }
  },
)
watch(
  () => bench.set?.title,
  (title) => (document.title = title ? `${title} · Keen Slate` : 'Keen Slate'),
)

onKeyStroke(['z', 'Z'], (event) => {
  if (!(event.ctrlKey || event.metaKey) || typing(event)) return
  event.preventDefault()
  void (event.shiftKey ? bench.redo() : bench.undo())
})
const plain = (event: KeyboardEvent) => !typing(event) && !event.ctrlKey && !event.metaKey && !event.altKey
onKeyStroke('/', (event) => {
  if (!plain(event)) return
  event.preventDefault()
  entry.value?.focus()
})
onKeyStroke('?', (event) => plain(event) && (helpShown.value = true))

// A new teacher is walked over the Bench, once.
const walked = useLocalStorage('keen-slate-walked', false)
const walking = ref(false)
const walkMet = onceOpened(walking)
onMounted(async () => {
  if (walked.value) return
  const answer = await ask(client.GET('/api/me'))
  if (answer.ok && answer.data.sets <= 1) walking.value = walked.value = true
})
</script>

<template>
  <div class="bench">
    <TopLine @keys="helpShown = true" @ways="waysShown = !waysShown" @whole="wholeShown = !wholeShown" />
    <p v-if="bench.missing" class="missing" role="alert">
      {{ bench.missing.message }} {{ bench.missing.hint }}
      <RouterLink to="/">Shelf</RouterLink>
    </p>
    <div v-else-if="bench.set" class="regions">
      <section class="left" aria-label="Ladder">
        <LadderColumn />
        <EntryLine ref="entry" :key="bench.set.id" :set-id="bench.set.id" />
      </section>
      <main class="sheet on-paper">
        <PaperSheet />
        <MarginColumn />
      </main>
    </div>
    <ConflictChoice />
    <WaysPanel v-if="waysMet" v-model:visible="waysShown" />
    <SetPanel v-if="wholeMet" v-model:visible="wholeShown" />
    <HelpPanel v-if="helpMet" v-model:visible="helpShown" @walk="walking = true" />
    <BenchWalk v-if="walkMet" v-model:visible="walking" />
  </div>
</template>

<style scoped src="../bench/bench.css"></style>
