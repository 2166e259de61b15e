<script setup lang="ts">
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import Textarea from 'primevue/textarea'
import { computed, onMounted, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import { ask, type ClassSummary, client, type Refusal } from '../api/client'
import { dayOf } from '../answers/cells'
import NewSitting from '../classes/NewSitting.vue'
import TodayBox from '../classes/TodayBox.vue'
import ChooseFile from '../parts/ChooseFile.vue'
import { asDocument } from '../parts/chosenFile'
import { aliasesIn } from '../classes/aliases'
import limits from '../parts/limits.json'
import PageHead from '../parts/PageHead.vue'

const router = useRouter()
const setId = computed(() => String(useRoute().query.set ?? ''))
const classes = ref<ClassSummary[] | null>(null)
const refusal = ref<Refusal | null>(null)
const name = ref('')
const aliases = ref('')

async function load(): Promise<void> {
  const answer = await ask(client.GET('/api/classes'))
  if (answer.ok) classes.value = answer.data.classes
  refusal.value = answer.ok ? null : answer.refusal
}

async function begin(): Promise<void> {
  const body = {
    name: name.value,
    aliases: aliasesIn(aliases.value),
  }
  const answer = await ask(client.POST('/api/classes', { body }))
  if (answer.ok) await router.push({ name: 'class', params: { classId: answer.data.id } })
  else refusal.value = answer.refusal
}

/** A new class from a file that Keen Slate has written; all of it or nothing. */
async function bring(file: File): Promise<void> {
  const answer = await ask(client.POST('/api/classes/bring', asDocument(file)))
  if (answer.ok) await router.push({ name: 'class', params: { classId: answer.data.id } })
  else refusal.value = answer.refusal
}

onMounted(() => {
  document.title = 'Classes · Keen Slate'
  void load()
})
</script>

<template>
  <main class="classes">
    <PageHead title="Classes" />
    <p v-if="refusal" class="trouble" role="alert">{{ refusal.message }} {{ refusal.hint }}</p>
    <NewSitting v-if="setId && classes?.length" :classes="classes" :set-id="setId" />
    <TodayBox />
    <ul class="sheets">
      <li v-for="one in classes" :key="one.id">
        <RouterLink class="sheet on-paper" :to="{ name: 'class', params: { classId: one.id } }">
          <h2>{{ one.name }}</h2>
          <span>{{ one.pupils }} {{ one.pupils === 1 ? 'pupil' : 'pupils' }}</span>
          <span
            >{{ one.sittings }} {{ one.sittings === 1 ? 'sitting' : 'sittings'
            }}<template v-if="one.last">, the last on {{ dayOf(one.last) }}</template></span
          >
        </RouterLink>
      </li>
    </ul>
    <p v-if="classes?.length === 0" class="quiet">
      No class yet. Name one and give its pupils aliases: what you type here then shows what each of them holds.
    </p>
    <form class="begin" @submit.prevent="begin">
      <h2>A new class</h2>
      <label for="class-name">Name</label>
      <InputText id="class-name" v-model="name" :maxlength="limits.title" autocomplete="off" />
      <label for="class-aliases">Aliases of its pupils, a line each</label>
      <Textarea
        id="class-aliases"
        v-model="aliases"
        rows="4"
        auto-resize
        spellcheck="false"
        placeholder="Sedge&#10;Alder&#10;Yarrow"
        aria-describedby="aliases-only"
      />
      <p id="aliases-only" class="quiet">
        Aliases only: plants, numbers, whatever you can tell apart. This is no place for full names.
      </p>
      <p class="acts">
        <Button type="submit" label="Begin" :disabled="!name.trim()" />
        <ChooseFile
          label="or bring one in from a file"
          accept=".json,application/json"
          hint="A class of 30 with forty sittings takes about 1 MB."
          @file="bring"
          @refused="refusal = $event"
        />
      </p>
    </form>
  </main>
</template>

<style scoped src="../classes/classes.css"></style>
