<script setup lang="ts">
import { onBeforeUnmount, onMounted, ref, watch } from 'vue'
import { useRouter } from 'vue-router'

import ConflictChoice from '../bench/ConflictChoice.vue'
import EntryLine from '../bench/EntryLine.vue'
import KeysHelp from '../bench/KeysHelp.vue'
import LadderColumn from '../bench/LadderColumn.vue'
import MarginColumn from '../bench/MarginColumn.vue'
import PaperSheet from '../bench/PaperSheet.vue'
import TopLine from '../bench/TopLine.vue'
import SetPanel from '../bench/SetPanel.vue'
import WaysPanel from '../bench/WaysPanel.vue'
import { useBench } from '../stores/bench'

const props = defineProps<{
  /** The set on the Bench. */
  setId: string
  /** The example on the paper; the first one when the address names none. */
  exampleId?: string
}>()

const bench = useBench()
const router = useRouter()
const keysShown = ref(false)
const waysShown = ref(false)
const wholeShown = ref(false)
const entry = ref<InstanceType<typeof EntryLine> | null>(null)

watch(() => props.setId, openSet, { immediate: true })

async function openSet(): Promise<void> {
  await bench.open(props.setId)
  const wanted = bench.examples.find((item) => item.id === props.exampleId) ?? bench.examples[0]
  await bench.choose(wanted?.id ?? null)
}

// The address follows the choice, so that a reload comes back to the same example.
watch(
  () => bench.chosen,
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

function onKey(event: KeyboardEvent): void {
  const typing = event.target instanceof HTMLInputElement || event.target instanceof HTMLTextAreaElement
  if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'z' && !typing) {
    event.preventDefault()
    void (event.shiftKey ? bench.redo() : bench.undo())
  }
  if (typing || event.ctrlKey || event.metaKey || event.altKey) return
  if (event.key === '/') {
    event.preventDefault()
    entry.value?.focus()
  }
  if (event.key === '?') keysShown.value = true
}

onMounted(() => window.addEventListener('keydown', onKey))
onBeforeUnmount(() => window.removeEventListener('keydown', onKey))
</script>

<template>
  <div class="bench">
    <TopLine @keys="keysShown = true" @ways="waysShown = !waysShown" @whole="wholeShown = !wholeShown" />
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
    <WaysPanel v-model:visible="waysShown" />
    <SetPanel v-model:visible="wholeShown" />
    <KeysHelp v-model:visible="keysShown" />
  </div>
</template>

<style scoped>
.bench {
  display: grid;
  grid-template-rows: auto 1fr;
  height: 100vh;
  min-width: 0;
}
.regions {
  display: grid;
  grid-template-columns: 252px minmax(0, 1fr);
  min-height: 0;
  padding: 0 20px 18px 0;
}
.left {
  display: grid;
  grid-template-rows: minmax(0, 1fr) auto;
  min-height: 0;
}
.sheet {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 316px;
  min-height: 0;
  overflow-y: auto;
  color: var(--ink);
  border-radius: 2px;
  background: var(--paper);
}
.missing {
  padding: 3rem;
}
/* Narrow windows, and wide ones at 200 %: the regions stand under each other and the page scrolls. */
@media (max-width: 1000px) {
  .sheet {
    grid-template-columns: 1fr;
    align-content: start;
  }
}
@media (max-width: 760px) {
  .bench {
    height: auto;
  }
  .regions {
    grid-template-columns: 1fr;
    padding: 0;
  }
  .left {
    grid-template-rows: auto auto;
  }
  .sheet {
    overflow: visible;
  }
}
</style>
