<script setup lang="ts">
import Button from 'primevue/button'
import { ref } from 'vue'
import { useRouter } from 'vue-router'

import { ask, client, type Refusal } from '../api/client'
import { useBench } from '../stores/bench'

const emit = defineEmits<{ left: [] }>()
const bench = useBench()
const router = useRouter()
const versions = ref<{ id: string; title: string }[]>([])
const same = ref(0) // problems of the versions for which no other was found
const refusal = ref<Refusal | null>(null)
const params = () => ({ path: { set_id: bench.set?.id ?? '' } })

async function makeVersions(count: number): Promise<void> {
  const body = { count, seed: Math.floor(Math.random() * 2 ** 31) }
  const answer = await ask(client.POST('/api/sets/{set_id}/versions', { params: params(), body }))
  if (answer.ok) {
    versions.value = answer.data.sets
    same.value = answer.data.same
  }
  refusal.value = answer.ok ? null : answer.refusal
}

async function duplicate(): Promise<void> {
  const body = { title: `${bench.set?.title.slice(0, 110)}, copy` }
  const answer = await ask(client.POST('/api/sets/{set_id}/copies', { params: params(), body }))
  if (!answer.ok) return void (refusal.value = answer.refusal)
  emit('left')
  await router.push({ name: 'bench', params: { setId: answer.data.id } })
}
</script>

<template>
  <h2>Versions with other numbers</h2>
  <p v-if="refusal" class="refusal" role="alert">{{ refusal.message }} {{ refusal.hint }}</p>
  <p class="words">
    <Button class="word" @click="makeVersions(1)">Make a version B</Button>
    <Button class="word" @click="makeVersions(2)">Make B and C</Button>
    <Button class="word" @click="duplicate">Duplicate the set</Button>
  </p>
  <p v-if="versions.length" role="status">
    On the Shelf now:
    <template v-for="one in versions" :key="one.id"
      ><RouterLink :to="{ name: 'bench', params: { setId: one.id } }" @click="emit('left')">{{ one.title }}</RouterLink
      >{{ ' ' }}</template
    >
    <template v-if="same">{{
      same === 1
        ? 'For one problem no other was found: it is the same.'
        : `For ${same} problems no others were found: they are the same.`
    }}</template>
  </p>
</template>

<style scoped src="./panel.css"></style>
