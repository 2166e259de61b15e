<script setup lang="ts">
import { computed, ref, watch } from 'vue'

import { ask, client, type Figure } from '../api/client'
import FigureDrawing from '../parts/FigureDrawing.vue'
import FigureFiles from '../parts/FigureFiles.vue'
import { useBench } from '../stores/bench'

const props = defineProps<{
  /** The misconception whose wrong answer is shown below the right one. */
  code: string
  /** The problem, so that another one has its own picture. */
  problem: string
}>()

const bench = useBench()
const figure = ref<Figure | null>(null)
const address = computed(() => `/api/sets/${bench.set?.id}/examples/${bench.chosen}/misconceptions/${props.code}/picture.svg`)

let asked = 0

async function load(): Promise<void> {
  figure.value = null
  const mine = ++asked // an answer that comes late must not replace a later one
  const path = { set_id: bench.set?.id ?? '', example_id: bench.chosen ?? '', code: props.code }
  const answer = await ask(client.GET('/api/sets/{set_id}/examples/{example_id}/misconceptions/{code}/picture', { params: { path } }))
  if (answer.ok && mine === asked) figure.value = answer.data.figure
}

watch(() => [props.code, props.problem, bench.chosen], load, { immediate: true })
</script>

<template>
  <div v-if="figure" class="seen">
    <FigureDrawing :figure="figure" />
    <FigureFiles :address="address" :name="code" />
  </div>
</template>

<style scoped>
/* The picture has the whole width of the margin. */
.seen { margin: 4px 0 0 -76px; }
.seen :deep(.figure) { height: auto; }
</style>
