<script setup lang="ts">
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import Select from 'primevue/select'
import { computed, onMounted, ref } from 'vue'
import { useRouter } from 'vue-router'

import { ask, client, type Refusal, type Schemas, type SetSummary } from '../api/client'
import { dayOf, KINDS, today } from '../answers/cells'

const props = defineProps<{
  /** The classes to choose from; one only where this is its own page. */
  classes: { id: string; name: string }[]
  /** The set that is given, where it is known. */
  setId?: string
}>()
const router = useRouter()
const sets = ref<SetSummary[]>([])
const set = ref(props.setId ?? '')
const one = ref(props.classes[0]?.id ?? '')
const day = ref(dayOf(today()))
const kind = ref<Schemas['SittingIn']['kind']>('quiz')
const refusal = ref<Refusal | null>(null)
const busy = ref(false)
const ready = computed(() => set.value && one.value && day.value.trim() && !busy.value)

async function begin(): Promise<void> {
  busy.value = true
  const params = { path: { class_id: one.value } }
  const body = { set_id: set.value, day: day.value, kind: kind.value }
  const answer = await ask(client.POST('/api/classes/{class_id}/sittings', { params, body }))
  busy.value = false
  if (answer.ok) await router.push({ name: 'answers', params: { sittingId: answer.data.id } })
  else refusal.value = answer.refusal
}

onMounted(async () => {
  const answer = await ask(client.GET('/api/sets', { params: { query: { place: 'shelf', search: '', start: 0 } } }))
  if (answer.ok) sets.value = answer.data.sets
  else refusal.value = answer.refusal
  if (set.value && !sets.value.some((found) => found.id === set.value)) {
    const own = await ask(client.GET('/api/sets/{set_id}', { params: { path: { set_id: set.value } } }))
    if (own.ok) sets.value.unshift({ ...own.data, first: [], rungs: [] } as unknown as SetSummary)
  }
})
</script>

<template>
  <form class="sitting on-paper" @submit.prevent="begin">
    <h2>Type in answers</h2>
    <p class="fields">
      <label v-if="classes.length > 1"
        >Class <Select v-model="one" :options="classes" option-label="name" option-value="id" aria-label="Class"
      /></label>
      <label class="set"
        >Set
        <Select
          v-model="set"
          :options="sets"
          option-label="title"
          option-value="id"
          placeholder="which set they worked"
          aria-label="Set"
          filter
          :filter-fields="['title']"
      /></label>
      <label>Day <InputText v-model="day" size="12" maxlength="60" autocomplete="off" aria-label="Day" /></label>
      <label
        >Kind <Select v-model="kind" :options="KINDS" option-label="name" option-value="code" aria-label="Kind"
      /></label>
      <Button type="submit" label="Open the table" :disabled="!ready" />
    </p>
    <p v-if="refusal" class="refusal" role="alert">{{ refusal.message }} {{ refusal.hint }}</p>
    <p class="quiet">The problems are kept as they are now: a later change of the set changes no record.</p>
  </form>
</template>

<style scoped>
.sitting {
  background: var(--paper);
  color: var(--ink);
  border-radius: 3px;
  padding: 16px 26px;
  margin-bottom: 14px;
  display: grid;
  gap: 8px;
}
h2 {
  font-size: 1.1rem;
}
.fields {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 18px;
  align-items: end;
}
.fields label {
  display: grid;
  gap: 2px;
  color: var(--ink-quiet);
  font-size: 0.9rem;
}
.set {
  flex: 1 1 16rem;
  min-width: 0;
}
.set :deep(.p-select) {
  width: 100%;
}
.quiet {
  color: var(--ink-quiet);
  font-size: 0.92rem;
}
.refusal {
  color: var(--role-wrong);
}
</style>
