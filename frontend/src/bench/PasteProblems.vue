<script setup lang="ts">
import Button from 'primevue/button'
import Dialog from 'primevue/dialog'
import { computed, ref } from 'vue'

import { client, type Refusal, type Schemas } from '../api/client'
import PastedLines from '../parts/PastedLines.vue'
import { useBench } from '../stores/bench'

const visible = defineModel<boolean>('visible', { required: true })
const bench = useBench()
const lines = ref<Schemas['BroughtLine'][]>([])
const refusal = ref<Refusal | null>(null)
const good = computed(() => lines.value.filter((line) => line.verdict === 'read'))
const word = computed(() => {
  if (good.value.length === lines.value.length) return 'Put them on the ladder'
  return good.value.length === 1
    ? 'Put the good one on the ladder'
    : `Put the ${good.value.length} good ones on the ladder`
})

const judge = (text: string, signal: AbortSignal) =>
  client.POST('/api/sets/{set_id}/judge', { params: { path: { set_id: bench.set?.id ?? '' } }, body: { text }, signal })

async function take(): Promise<void> {
  const refused = await bench.take(good.value.map((line) => line.text))
  refusal.value = refused
  if (refused) return
  visible.value = false
  lines.value = []
}
</script>

<template>
  <Dialog v-model:visible="visible" modal header="Bring in problems" :closable="false" dismissable-mask>
    <div class="bring">
      <PastedLines id="brought" v-model:lines="lines" :judge="judge" />
      <p v-if="refusal" class="refusal" role="alert">{{ refusal.message }} {{ refusal.hint }}</p>
      <p class="ways">
        <Button :disabled="!good.length" :label="word" @click="take" />
        <Button label="Leave it" variant="outlined" @click="visible = false" />
      </p>
    </div>
  </Dialog>
</template>

<style scoped>
.bring {
  display: grid;
  gap: 0.6rem;
  width: min(34rem, 84vw);
}
.refusal {
  color: var(--role-wrong);
}
.ways {
  display: flex;
  gap: 0.8rem;
}
</style>
