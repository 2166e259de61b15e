<script setup lang="ts">
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { onMounted, ref, watch } from 'vue'
import { useRouter } from 'vue-router'

import { ask, client, type Refusal, type SetSummary } from '../api/client'
import { useLatest } from '../api/useLatest'
import TodayBox from '../classes/TodayBox.vue'
import { asDocument, chosenFile } from '../parts/chosenFile'
import MathLine from '../parts/MathLine.vue'
import limits from '../parts/limits.json'

type Place = 'shelf' | 'archive' | 'bin'
const PLACES: { code: Place; name: string }[] = [
  { code: 'shelf', name: 'On the shelf' },
  { code: 'archive', name: 'Archive' },
  { code: 'bin', name: 'Bin' },
]
const router = useRouter()
const sets = ref<SetSummary[] | null>(null)
const trouble = ref<Refusal | null>(null)
const title = ref('')
const place = ref<Place>('shelf')
const search = ref('')
const counts = ref<Record<string, number>>({})
const moved = ref<{ set: SetSummary; from: Place } | null>(null)

const { latest } = useLatest()
const total = ref(0)

async function load(start = 0): Promise<void> {
  const query = { place: place.value, search: search.value, start }
  const answer = await latest((signal) => client.GET('/api/sets', { params: { query }, signal }))
  if (!answer) return
  if (answer.ok) {
    sets.value = start ? [...(sets.value ?? []), ...answer.data.sets] : answer.data.sets
    counts.value = answer.data.counts
    total.value = answer.data.total
  }
  trouble.value = answer.ok ? null : answer.refusal
}

let waiting: ReturnType<typeof setTimeout> | undefined
watch(search, () => {
  clearTimeout(waiting)
  waiting = setTimeout(() => load(), 150)
})
watch(place, () => {
  moved.value = null
  void load()
})

async function put(set: SetSummary, to: Place): Promise<void> {
  const answer = await ask(
    client.PUT('/api/sets/{set_id}/place', { params: { path: { set_id: set.id } }, body: { place: to } }),
  )
  if (!answer.ok) return void (trouble.value = answer.refusal)
  moved.value = to === place.value ? null : { set, from: place.value }
  await load()
}

async function duplicate(set: SetSummary): Promise<void> {
  const params = { path: { set_id: set.id } }
  const answer = await ask(
    client.POST('/api/sets/{set_id}/copies', { params, body: { title: `${set.title.slice(0, 110)}, copy` } }),
  )
  if (answer.ok) await load()
  else trouble.value = answer.refusal
}

async function emptyBin(): Promise<void> {
  const answer = await ask(client.DELETE('/api/sets/bin'))
  moved.value = null
  if (answer.ok) await load()
  else trouble.value = answer.refusal
}

async function begin(): Promise<void> {
  if (!title.value.trim()) return
  const answer = await ask(client.POST('/api/sets', { body: { title: title.value } }))
  if (answer.ok) await router.push({ name: 'bench', params: { setId: answer.data.id } })
  else trouble.value = answer.refusal
}

/** A new set from a file that Keen Slate has written; all of it or nothing. */
async function bring(event: Event): Promise<void> {
  const { file, refusal } = chosenFile(event, `A set of ${limits.examples} examples takes less than 100 kB.`)
  if (refusal) trouble.value = refusal
  if (!file) return
  const answer = await ask(client.POST('/api/sets/bring', asDocument(file)))
  if (answer.ok) await router.push({ name: 'bench', params: { setId: answer.data.id } })
  else trouble.value = answer.refusal
}

/** End the sign-in of this browser; a new link lets it in again. */
async function leave(): Promise<void> {
  const answer = await ask(client.POST('/api/leave'))
  if (answer.ok) window.location.assign('/door')
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
      <RouterLink class="word" :to="{ name: 'classes' }">Classes</RouterLink>
      <RouterLink class="word" :to="{ name: 'catalogue' }">Likely wrong answers</RouterLink>
      <RouterLink class="word" :to="{ name: 'building' }">Number building</RouterLink>
      <button class="word leave" @click="leave">Sign out</button>
    </header>

    <p v-if="trouble" class="trouble" role="alert">
      {{ trouble.message }} {{ trouble.hint }} <button class="word" @click="load()">Try again</button>
    </p>

    <TodayBox />
    <div class="look">
      <p class="places" role="group" aria-label="Which sets">
        <button
          v-for="one in PLACES"
          :key="one.code"
          class="word"
          :aria-pressed="place === one.code"
          @click="place = one.code"
        >
          {{ one.name }} {{ counts[one.code] || '' }}
        </button>
      </p>
      <label class="search"
        ><span>Search</span>
        <InputText
          v-model="search"
          type="search"
          :maxlength="limits.search"
          autocomplete="off"
          placeholder="a word, a problem, a standard"
      /></label>
      <button v-if="place === 'bin' && sets?.length" class="word" @click="emptyBin">Empty the bin for good</button>
    </div>
    <p v-if="moved" class="moved" role="status">
      {{ moved.set.title }} was put {{ moved.from === 'shelf' ? 'away' : 'back' }}.
      <button class="word" @click="put(moved.set, moved.from)">Undo</button>
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
          <span v-if="set.objective || set.standards.length" class="for">{{
            [set.objective, ...set.standards].filter(Boolean).join(' · ')
          }}</span>
        </RouterLink>
        <p class="acts">
          <button v-if="place === 'shelf'" class="word" :aria-label="`Duplicate ${set.title}`" @click="duplicate(set)">
            Duplicate
          </button>
          <button
            v-if="place !== 'archive'"
            class="word"
            :aria-label="`Put ${set.title} into the archive`"
            @click="put(set, 'archive')"
          >
            Archive
          </button>
          <button
            v-if="place !== 'shelf'"
            class="word"
            :aria-label="`Put ${set.title} back on the shelf`"
            @click="put(set, 'shelf')"
          >
            Back on the shelf
          </button>
          <button
            v-if="place !== 'bin'"
            class="word"
            :aria-label="`Put ${set.title} into the bin`"
            @click="put(set, 'bin')"
          >
            Bin
          </button>
        </p>
      </li>
    </ul>
    <p v-if="sets && total > sets.length" class="more">
      {{ sets.length }} of {{ total.toLocaleString('en') }} sets.
      <button class="word" @click="load(sets.length)">Show more</button>
    </p>
    <p v-if="sets?.length === 0" class="empty">
      {{
        search
          ? 'No set has these words.'
          : place === 'shelf'
            ? 'The shelf is empty. Name your first set, then type problems onto its ladder.'
            : 'Nothing lies here.'
      }}
    </p>

    <form class="begin" @submit.prevent="begin">
      <label for="new-title">A new set</label>
      <InputText
        id="new-title"
        v-model="title"
        :maxlength="limits.title"
        autocomplete="off"
        placeholder="What is it about?"
      />
      <Button type="submit" class="go" label="Begin" :disabled="!title.trim()" />
      <label class="file"
        >or bring one in from a file <input type="file" accept=".json,application/json" @change="bring"
      /></label>
    </form>
  </main>
</template>

<style scoped>
.shelf {
  max-width: 1040px;
  margin: 0 auto;
  padding: 22px 24px 60px;
}
.head {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 0.2rem 1rem;
  margin-bottom: 28px;
}
.name {
  font-weight: 700;
}
.leave {
  margin-left: auto;
}
h1 {
  font-size: 1rem;
  font-weight: 400;
  color: var(--on-slate-quiet);
}
.sheets {
  display: grid;
  gap: 18px;
}
/* A slip of squared paper for each set, with the margin rule of an exercise book. */
.sheet {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 4px 24px;
  align-items: baseline;
  color: var(--ink);
  text-decoration: none;
  padding: 22px 24px 22px 56px;
  border-radius: 2px;
  background:
    linear-gradient(90deg, transparent 38px, var(--margin-rule) 38px 40px, transparent 40px),
    linear-gradient(var(--squares) 1px, transparent 1px) 0 -1px / var(--square) var(--square),
    linear-gradient(90deg, var(--squares) 1px, transparent 1px) -1px 0 / var(--square) var(--square),
    var(--paper);
}
.sheet:hover h2 {
  text-decoration: underline;
  text-underline-offset: 0.2em;
}
h2 {
  font-size: 1.25rem;
}
.first {
  grid-row: 2;
  display: flex;
  flex-wrap: wrap;
  gap: 6px 28px;
  font-size: 1.2rem;
  align-items: center;
  min-height: 48px;
}
.about {
  color: var(--ink-quiet);
  justify-self: end;
  background: var(--paper);
  padding: 0 4px;
}
.look {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 28px;
  align-items: center;
  padding-bottom: 18px;
}
.places {
  display: flex;
  gap: 4px 14px;
}
.places .word[aria-pressed='true'] {
  font-weight: 700;
  text-decoration-color: currentColor;
}
.search {
  display: flex;
  gap: 10px;
  align-items: center;
}
.search :deep(input) {
  width: min(17rem, 60vw);
}
.moved {
  padding-bottom: 12px;
  color: var(--on-slate-quiet);
}
.moved .word,
.look > .word {
  text-decoration: underline;
  text-underline-offset: 4px;
}
.acts {
  display: flex;
  gap: 4px 16px;
  justify-content: flex-end;
  font-size: 0.9rem;
  color: var(--on-slate-quiet);
  padding-top: 2px;
}
.for {
  color: var(--ink-quiet);
  grid-column: 1 / -1;
  background: var(--paper);
  width: fit-content;
}
.more {
  padding: 18px 0;
  color: var(--on-slate-quiet);
}
.more .word {
  text-decoration: underline;
  text-underline-offset: 4px;
}
.empty {
  padding: 40px 0;
  color: var(--on-slate-quiet);
}
.begin {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 12px;
  margin-top: 32px;
}
.begin :deep(input) {
  width: min(24rem, 100%);
}
.go {
  background: var(--paper);
  color: var(--ink);
  border-color: var(--paper);
}
.trouble {
  background: var(--paper);
  color: var(--role-wrong);
  padding: 10px 16px;
  margin-bottom: 18px;
  border-radius: 3px;
}
@media (max-width: 640px) {
  .sheet {
    grid-template-columns: 1fr;
    padding-right: 12px;
  }
  .first {
    grid-row: auto;
  }
  .about {
    justify-self: start;
  }
}
</style>
