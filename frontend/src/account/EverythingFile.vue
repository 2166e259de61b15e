<script setup lang="ts">
import { ref } from 'vue'

import { ask, client, type Refusal, type Schemas } from '../api/client'
import ChooseFile from '../parts/ChooseFile.vue'
import FileLink from '../parts/FileLink.vue'
import limits from '../parts/limits.json'

/** All that is one's own as one file: saved, and brought in beside what is there. */
const emit = defineEmits<{ brought: [] }>()
const refusal = ref<Refusal | null>(null)
const brought = ref<Schemas['BroughtDeskOut'] | null>(null)
const ZIP = 'application/zip'

async function bring(file: File): Promise<void> {
  const sent = {
    body: file as never,
    bodySerializer: (body: unknown) => body as Blob,
    headers: { 'Content-Type': ZIP },
  }
  const answer = await ask(client.POST('/api/account/everything', sent))
  refusal.value = answer.ok ? null : answer.refusal
  brought.value = answer.ok ? answer.data : null
  if (answer.ok) emit('brought')
}

const many = (count: number, one: string, more: string) => `${count} ${count === 1 ? one : more}`
const said = (desk: Schemas['BroughtDeskOut']) =>
  [
    many(desk.sets, 'set', 'sets'),
    many(desk.classes, 'class', 'classes'),
    many(desk.scenarios, 'scenario', 'scenarios'),
    ...(desk.ways ? ['the ways for all sets'] : []),
  ].join(', ')
</script>

<template>
  <section class="sheet on-paper" aria-labelledby="everything">
    <h2 id="everything">Everything as one file</h2>
    <p class="quiet">
      Your sets wherever they lie, your classes with their answers, your scenarios and the ways for all sets: to be
      kept, or taken to another Keen Slate. What is brought in comes beside what is here.
    </p>
    <p v-if="refusal" class="refusal" role="alert">{{ refusal.message }} {{ refusal.hint }}</p>
    <div v-if="brought" role="status">
      <p>Brought in: {{ said(brought) }}.</p>
      <template v-if="brought.left.length">
        <p>Left out:</p>
        <ul>
          <li v-for="one in brought.left" :key="one">{{ one }}</li>
        </ul>
      </template>
    </div>
    <p class="acts">
      <FileLink to="/api/account/everything.zip">Save it</FileLink>
      <ChooseFile
        label="Bring one in"
        accept=".zip,application/zip"
        hint="Bring the sets in one by one."
        :largest="limits.desk"
        @file="bring"
        @refused="(told) => (refusal = told)"
      />
    </p>
  </section>
</template>

<style scoped src="../classes/class.css"></style>
<style scoped src="./account.css"></style>
<style scoped>
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 20px;
  align-items: center;
}
a.word {
  font-weight: 700;
  padding-left: 0;
  text-decoration-color: currentColor;
}
</style>
