<script setup lang="ts">
import { computed, onMounted, ref } from 'vue'

import { ask, client, type ExampleSummary } from '../api/client'
import RungSelect from '../parts/RungSelect.vue'
import { rungsOf } from './rungsOf'

/** On a long ladder: to the first example of a rung, by its name. */
const props = defineProps<{
  examples: ExampleSummary[]
  /** The example on the paper: its rung is the one that stands here. */
  chosen: string | null
}>()
const emit = defineEmits<{ go: [id: string] }>()
const names = ref(new Map<string, string>())
const rungs = computed(() => rungsOf(props.examples, names.value))
const here = computed(() => props.examples.find((one) => one.id === props.chosen)?.rung ?? null)

function go(code: string | null): void {
  const first = rungs.value.find((one) => one.code === code)
  if (first) emit('go', first.id)
}

onMounted(async () => {
  const answer = await ask(client.GET('/api/ladders'))
  if (answer.ok) names.value = new Map(answer.data.rungs.map((one) => [one.code, one.name]))
})
</script>

<template>
  <RungSelect
    :model-value="here"
    class="jump"
    :rungs="rungs"
    label="Go to a rung"
    placeholder="Go to a rung"
    @update:model-value="go"
  />
</template>

<style scoped>
.jump {
  width: 100%;
  font-size: 0.9rem;
}
</style>
