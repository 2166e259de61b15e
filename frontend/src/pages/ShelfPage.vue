<script setup lang="ts">
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { onMounted, ref } from 'vue'
import { useRouter } from 'vue-router'

import { ask, client, type Refusal, type SetSummary } from '../api/client'
import MathLine from '../parts/MathLine.vue'

const router = useRouter()
const sets = ref<SetSummary[] | null>(null)
const trouble = ref<Refusal | null>(null)
const title = ref('')

async function load(): Promise<void> {
  const answer = await ask(client.GET('/api/sets'))
  if (answer.ok) sets.value = answer.data.sets
  trouble.value = answer.ok ? null : answer.refusal
}

async function begin(): Promise<void> {
  if (!title.value.trim()) return
  const answer = await ask(client.POST('/api/sets', { body: { title: title.value } }))
  if (answer.ok) await router.push({ name: 'bench', params: { setId: answer.data.id } })
  else trouble.value = answer.refusal
}

function changed(set: SetSummary): string {
  return new Date(set.changed_at).toLocaleDateString(undefined, { day: 'numeric', month: 'long' })
}

function count(set: SetSummary): string {
  const rungs = set.rungs.length > 1 ? `, ${set.rungs[0]} to ${set.rungs.at(-1)}` : ''
  return `${set.examples} ${set.examples === 1 ? 'example' : 'examples'}${rungs}`
}

onMounted(() => {
  document.title = 'Shelf · Keen Slate'
  void load()
})
</script>

<template>
  <main class="shelf">
    <header class="head">
      <p class="name">Keen Slate</p>
      <h1>Shelf</h1>
      <RouterLink class="word" :to="{ name: 'catalogue' }">Likely wrong answers</RouterLink>
      <RouterLink class="word" :to="{ name: 'building' }">Number building</RouterLink>
    </header>

    <p v-if="trouble" class="trouble" role="alert">
      {{ trouble.message }} {{ trouble.hint }} <button class="word" @click="load">Try again</button>
    </p>

    <ul class="sheets">
      <li v-for="set in sets" :key="set.id">
        <RouterLink class="sheet on-paper" :to="{ name: 'bench', params: { setId: set.id } }">
          <h2>{{ set.title }}</h2>
          <span class="first">
            <MathLine v-for="(glyphs, i) in set.first" :key="i" :glyphs="glyphs" />
            <span v-if="set.examples > set.first.length" aria-hidden="true">…</span>
          </span>
          <span class="about">{{ count(set) }}</span>
          <span class="about">changed {{ changed(set) }}</span>
        </RouterLink>
      </li>
    </ul>
    <p v-if="sets?.length === 0" class="empty">The shelf is empty. Name your first set, then type problems onto its ladder.</p>

    <form class="begin" @submit.prevent="begin">
      <label for="new-title">A new set</label>
      <InputText id="new-title" v-model="title" :maxlength="120" autocomplete="off" placeholder="What is it about?" />
      <Button type="submit" class="go" label="Begin" :disabled="!title.trim()" />
    </form>
  </main>
</template>

<style scoped>
.shelf { max-width: 1040px; margin: 0 auto; padding: 22px 24px 60px; }
.head { display: flex; align-items: baseline; gap: 1rem; margin-bottom: 28px; }
.name { font-weight: 700; }
h1 { font-size: 1rem; font-weight: 400; color: var(--on-slate-quiet); }
.sheets { display: grid; gap: 18px; }
/* A slip of squared paper for each set, with the margin rule of an exercise book. */
.sheet {
  display: grid; grid-template-columns: 1fr auto; gap: 4px 24px; align-items: baseline; color: var(--ink);
  text-decoration: none; padding: 22px 24px 22px 56px; border-radius: 2px;
  background:
    linear-gradient(90deg, transparent 38px, var(--margin-rule) 38px 40px, transparent 40px),
    linear-gradient(var(--squares) 1px, transparent 1px) 0 -1px / var(--square) var(--square),
    linear-gradient(90deg, var(--squares) 1px, transparent 1px) -1px 0 / var(--square) var(--square), var(--paper);
}
.sheet:hover h2 { text-decoration: underline; text-underline-offset: 0.2em; }
h2 { font-size: 1.25rem; }
.first { grid-row: 2; display: flex; flex-wrap: wrap; gap: 6px 28px; font-size: 1.2rem; align-items: center; min-height: 48px; }
.about { color: var(--ink-quiet); justify-self: end; background: var(--paper); padding: 0 4px; }
.empty { padding: 40px 0; color: var(--on-slate-quiet); }
.begin { display: flex; flex-wrap: wrap; align-items: center; gap: 12px; margin-top: 32px; }
.begin :deep(input) { width: min(24rem, 100%); }
.go { background: var(--paper); color: var(--ink); border-color: var(--paper); }
.trouble { background: var(--paper); color: var(--role-wrong); padding: 10px 16px; margin-bottom: 18px; border-radius: 3px; }
@media (max-width: 640px) {
  .sheet { grid-template-columns: 1fr; padding-right: 12px; }
  .first { grid-row: auto; }
  .about { justify-self: start; }
}
</style>
