<script setup lang="ts">
import Button from 'primevue/button'
import { computed, onMounted, ref, shallowRef } from 'vue'
import { useRouter } from 'vue-router'

import { ask, client, type Refusal, type SchoolClass, type Schemas } from '../api/client'
import { dayOf, kindOf } from '../answers/cells'
import ClassOverTime from '../classes/ClassOverTime.vue'
import ClassPupils from '../classes/ClassPupils.vue'
import ClassSettings from '../classes/ClassSettings.vue'
import NewSitting from '../classes/NewSitting.vue'
import TodayBox from '../classes/TodayBox.vue'
import WhatNext from '../classes/WhatNext.vue'
import FileLink from '../parts/FileLink.vue'
import PageHead from '../parts/PageHead.vue'

const props = defineProps<{ classId: string }>()
const router = useRouter()
const found = ref<SchoolClass | null>(null)
const over = shallowRef<Schemas['ClassOverTime'] | null>(null)
const refusal = ref<Refusal | null>(null)
const params = { path: { class_id: props.classId } }
const self = computed(() => (found.value ? [{ id: found.value.id, name: found.value.name }] : []))

async function load(): Promise<void> {
  const answer = await ask(client.GET('/api/classes/{class_id}', { params }))
  refusal.value = answer.ok ? null : answer.refusal
  if (answer.ok) take(answer.data)
}

function take(now: SchoolClass): void {
  found.value = now
  document.title = `${now.name} · Keen Slate`
  void look()
}

async function look(): Promise<void> {
  const answer = await ask(client.GET('/api/classes/{class_id}/over-time', { params }))
  if (answer.ok) over.value = answer.data
  else refusal.value = answer.refusal
}

async function removeSitting(id: string): Promise<void> {
  const answer = await ask(client.DELETE('/api/sittings/{sitting_id}', { params: { path: { sitting_id: id } } }))
  if (answer.ok) await load()
  else refusal.value = answer.refusal
}

onMounted(load)
const print = () => window.print()
const gone = () => router.push({ name: 'classes' })
const asking = ref('')
</script>

<template>
  <main class="class">
    <PageHead :title="found?.name ?? ''" :back="{ to: { name: 'classes' }, name: 'Classes' }">
      <span class="gap" />
      <template v-if="found">
        <Button class="word" @click="print">Print</Button>
        <FileLink :to="`/api/classes/${found.id}/class.pdf`">One page (PDF)</FileLink>
        <FileLink :to="`/api/classes/${found.id}/class.json`">All of it (JSON)</FileLink>
      </template>
    </PageHead>
    <p v-if="refusal" class="trouble" role="alert">{{ refusal.message }} {{ refusal.hint }}</p>
    <template v-if="found">
      <TodayBox :only="classId" class="no-print" />
      <WhatNext v-if="over && (over.groups.length || over.unclear.length)" :over="over" :class-id="found.id" />
      <NewSitting :classes="self" class="no-print" />
      <section class="sheet on-paper" aria-labelledby="sittings">
        <h2 id="sittings">Sittings</h2>
        <ul class="sittings">
          <li v-for="one in found.sittings" :key="one.id">
            <RouterLink :to="{ name: 'answers', params: { sittingId: one.id } }">{{ one.title }}</RouterLink>
            <span>{{ kindOf(one.kind) }}, {{ dayOf(one.day) }}</span>
            <span>{{ one.answered ? `${one.right} of ${one.answered} right` : 'nothing entered yet' }}</span>
            <span class="no-print">
              <template v-if="asking === one.id">
                All that was written in it goes.
                <Button class="word" @click="removeSitting(one.id)">Remove it</Button>
                <Button class="word" @click="asking = ''">Keep it</Button>
              </template>
              <Button
                v-else
                class="word"
                :aria-label="`Remove ${one.title}, ${dayOf(one.day)}`"
                @click="asking = one.id"
              >
                Remove
              </Button>
            </span>
          </li>
        </ul>
        <p v-if="!found.sittings.length" class="quiet">None yet. Choose a set above and type in what they wrote.</p>
      </section>
      <ClassOverTime v-if="over?.sittings.length" :over="over" :class-id="found.id" />
      <div class="two no-print">
        <ClassPupils :found="found" @changed="take" @again="load" />
        <ClassSettings :found="found" @changed="take" @again="load" @gone="gone" />
      </div>
    </template>
  </main>
</template>

<style scoped src="../classes/class.css"></style>
