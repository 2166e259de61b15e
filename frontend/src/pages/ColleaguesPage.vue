<script setup lang="ts">
import { watchDebounced } from '@vueuse/core'
import Button from 'primevue/button'
import { onMounted, ref } from 'vue'
import { useRouter } from 'vue-router'

import { ask, client, type Refusal, type Schemas } from '../api/client'
import { useLatest } from '../api/useLatest'
import PageHead from '../parts/PageHead.vue'
import SearchField from '../shelf/SearchField.vue'
import SetSlip from '../shelf/SetSlip.vue'

type Shared = Schemas['SharedSet']

const router = useRouter()
const sets = ref<Shared[] | null>(null)
const school = ref<string | null>(null)
const total = ref(0)
const search = ref('')
const refusal = ref<Refusal | null>(null)
const busy = ref(false)
const { latest } = useLatest()

async function load(start = 0): Promise<void> {
  const query = { search: search.value, start }
  const answer = await latest((signal) => client.GET('/api/colleagues/sets', { params: { query }, signal }))
  if (!answer) return
  refusal.value = answer.ok ? null : answer.refusal
  if (!answer.ok) return
  sets.value = start ? [...(sets.value ?? []), ...answer.data.sets] : answer.data.sets
  school.value = answer.data.school
  total.value = answer.data.total
}
watchDebounced(search, () => load(), { debounce: 150 })

const addressOf = (one: Shared) => `/shared/${one.teacher_id}/${one.set.id}`

async function take(one: Shared): Promise<void> {
  busy.value = true
  const params = { path: { teacher_id: one.teacher_id, set_id: one.set.id } }
  const answer = await ask(client.POST('/api/colleagues/{teacher_id}/sets/{set_id}/copies', { params }))
  busy.value = false
  if (answer.ok) await router.push({ name: 'bench', params: { setId: answer.data.id } })
  else refusal.value = answer.refusal
}

onMounted(() => {
  document.title = 'From colleagues · Keen Slate'
  void load()
})
</script>

<template>
  <main class="shelf">
    <PageHead title="From colleagues">
      <RouterLink v-if="school" class="word" :to="{ name: 'school' }">{{ school }}</RouterLink>
    </PageHead>
    <p v-if="refusal" class="trouble" role="alert">{{ refusal.message }} {{ refusal.hint }}</p>
    <div v-if="school" class="look"><SearchField v-model="search" /></div>
    <ul class="sheets">
      <SetSlip v-for="one in sets" :key="one.set.id" :set="one.set" :by="one.teacher" :read-at="addressOf(one)">
        <RouterLink
          class="word"
          :to="{ name: 'next-door', params: { teacherId: one.teacher_id, setId: one.set.id } }"
          :aria-label="`${one.set.title}, in my ways beside theirs`"
          >In my ways beside theirs</RouterLink
        >
        <Button class="word" :aria-label="`Take a copy of ${one.set.title}`" :disabled="busy" @click="take(one)">
          Take a copy
        </Button>
      </SetSlip>
    </ul>
    <p v-if="sets && total > sets.length" class="more">
      {{ sets.length }} of {{ total.toLocaleString('en') }} sets.
      <Button class="word" @click="load(sets.length)">Show more</Button>
    </p>
    <p v-if="sets?.length === 0" class="more">
      {{
        !school
          ? 'You are in no school here, so nobody shares with you. Whoever keeps Keen Slate puts you in one.'
          : search
            ? 'No set has these words.'
            : `Nobody in ${school} shares a set yet. Yours are shared under The set, on the Bench.`
      }}
    </p>
  </main>
</template>

<style scoped src="../shelf/shelf.css"></style>
