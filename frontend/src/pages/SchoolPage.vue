<script setup lang="ts">
import { onMounted, ref } from 'vue'

import { ask, client, type Answer, type Call, type Refusal, type Schemas } from '../api/client'
import { oneAtATime } from '../parts/oneAtATime'
import PageHead from '../parts/PageHead.vue'
import SchoolPeople from '../school/SchoolPeople.vue'
import SchoolWays from '../school/SchoolWays.vue'

/** The school: who teaches there; for its head, who is invited, and the ways that hold for all. */
const school = ref<Schemas['SchoolOut'] | null>(null)
const refusal = ref<Refusal | null>(null)
const inTurn = oneAtATime()

async function load(): Promise<void> {
  take(await ask(client.GET('/api/school')))
}

function take(answer: Answer<Schemas['SchoolOut']>): void {
  if (answer.ok) school.value = answer.data
  else refusal.value = answer.refusal
}

/** See what a change made of it, or why it was not made. */
async function done(answer: Answer<unknown>): Promise<void> {
  refusal.value = answer.ok ? null : answer.refusal
  await load()
}

async function choose(ways: Record<string, string>): Promise<void> {
  await changed((version) => client.PUT('/api/school/ways', { body: { ways, version } }))
}

/** Take back the last change of the ways, or do it again. */
async function go(where: 'undo' | 'redo'): Promise<void> {
  await changed((version) => client.POST(`/api/school/ways/${where}`, { body: { version } }))
}

/** Make one change after the other: two at once would be made on the same version. */
function changed(send: (version: number) => Call<Schemas['SchoolOut']>): Promise<void> {
  return inTurn(async () => {
    const answer = await ask(send(school.value?.version ?? 1))
    if (!answer.ok) return done(answer)
    refusal.value = null
    take(answer)
  })
}

onMounted(() => {
  document.title = 'School · Keen Slate'
  void load()
})
</script>

<template>
  <main class="class">
    <PageHead title="School" :back="{ to: { name: 'colleagues' }, name: 'From colleagues' }" />
    <p v-if="refusal" class="trouble" role="alert">{{ refusal.message }} {{ refusal.hint }}</p>
    <p v-if="school && !school.school" class="sheet">
      You are in no school here. With an invitation of its head you join one; colleagues then see what you share, and
      you what they share.
    </p>
    <template v-else-if="school">
      <SchoolPeople :school="school" @done="done" />
      <SchoolWays v-if="school.head" :school="school" @choose="choose" @go="go" />
    </template>
  </main>
</template>

<style scoped src="../classes/class.css"></style>
