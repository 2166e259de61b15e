<script setup lang="ts">
import { computed, onBeforeUnmount, onMounted, reactive, ref, watch } from 'vue'

import { ask, client, type Refusal } from '../api/client'
import { useLatest } from '../api/useLatest'

const props = defineProps<{ setId: string }>()

const options = reactive({
  paper: 'a4' as 'a4' | 'letter',
  per_page: 4,
  form: 'faded' as 'full' | 'faded' | 'problems',
  space: 40,
  name_line: true,
  pictures: false,
  key: true,
  wrong_answers: true,
  choices: false,
  versions: 1,
  seed: 1,
})
const title = ref('')
const pages = ref<string[]>([])
const refusal = ref<Refusal | null>(null)
const slow = ref(false)
const address = computed(() => {
  const query = new URLSearchParams(Object.entries(options).map(([name, value]) => [name, String(value)]))
  return `/api/sets/${props.setId}/handout.pdf?${query}`
})

const { latest } = useLatest()
let waiting: ReturnType<typeof setTimeout> | undefined
watch(options, () => {
  clearTimeout(waiting)
  waiting = setTimeout(load, 350)
})

async function load(): Promise<void> {
  const patience = setTimeout(() => (slow.value = true), 1000)
  const params = { path: { set_id: props.setId }, query: { ...options } }
  const answer = await latest((signal) => client.GET('/api/sets/{set_id}/handout', { params, signal }))
  clearTimeout(patience)
  if (!answer) return
  slow.value = false
  refusal.value = answer.ok ? null : answer.refusal
  if (answer.ok) show(answer.data.pages)
}

function show(found: string[]): void {
  pages.value.forEach(URL.revokeObjectURL)
  pages.value = found.map((page) =>
    URL.createObjectURL(new Blob([Uint8Array.from(atob(page), (c) => c.charCodeAt(0))], { type: 'image/png' })),
  )
}

onMounted(async () => {
  document.title = 'Handout · Keen Slate'
  const answer = await ask(client.GET('/api/sets/{set_id}', { params: { path: { set_id: props.setId } } }))
  if (!answer.ok) return void (refusal.value = answer.refusal)
  title.value = answer.data.title
  await load()
})
onBeforeUnmount(() => {
  clearTimeout(waiting)
  pages.value.forEach(URL.revokeObjectURL)
})
</script>

<template>
  <main class="handout">
    <header class="head">
      <p class="name">Keen Slate</p>
      <RouterLink class="word" :to="{ name: 'bench', params: { setId } }">Back to the Bench</RouterLink>
      <h1>Handout</h1>
      <p class="of">{{ title }}</p>
    </header>
    <div class="desk">
      <form class="options" @submit.prevent>
        <fieldset>
          <legend>Pupils get</legend>
          <label><input v-model="options.form" type="radio" value="faded" /> what the set leaves them</label>
          <label><input v-model="options.form" type="radio" value="full" /> full workings</label>
          <label><input v-model="options.form" type="radio" value="problems" /> problems only</label>
        </fieldset>
        <label class="line"
          >Paper
          <select v-model="options.paper">
            <option value="a4">A4</option>
            <option value="letter">Letter</option>
          </select>
        </label>
        <label class="line"
          >Examples on a page, at most
          <select v-model.number="options.per_page">
            <option v-for="n in 8" :key="n" :value="n">{{ n }}</option>
          </select>
        </label>
        <label class="line"
          >Squares to work in
          <select v-model.number="options.space">
            <option v-for="mm in [0, 20, 30, 40, 60, 80, 120]" :key="mm" :value="mm">
              {{ mm ? `${mm} mm` : 'none' }}
            </option>
          </select>
        </label>
        <label class="line"
          >Versions
          <select v-model.number="options.versions">
            <option v-for="n in 4" :key="n" :value="n">{{ n === 1 ? 'one' : `A to ${'ABCD'[n - 1]}` }}</option>
          </select>
        </label>
        <button v-if="options.versions > 1" type="button" class="word" @click="options.seed += 1">
          Other numbers for {{ options.versions === 2 ? 'B' : 'B and on' }}
        </button>
        <label><input v-model="options.name_line" type="checkbox" /> a line for name and date</label>
        <label
          ><input v-model="options.choices" type="checkbox" :disabled="options.form === 'full'" /> four answers to
          choose from, where only the problem is given</label
        >
        <label><input v-model="options.pictures" type="checkbox" /> pictures of the steps</label>
        <fieldset>
          <legend>For you</legend>
          <label><input v-model="options.key" type="checkbox" /> the key with marks, on pages of its own</label>
          <label
            ><input v-model="options.wrong_answers" type="checkbox" :disabled="!options.key" /> with what they may
            write</label
          >
        </fieldset>
        <p><a class="do" :href="address" target="_blank" rel="noopener">Open the PDF</a></p>
        <p class="quiet" role="status">
          {{
            slow ? 'Setting the pages…' : pages.length ? `${pages.length} ${pages.length === 1 ? 'page' : 'pages'}` : ''
          }}
        </p>
        <progress v-if="slow" aria-label="Setting the pages" />
      </form>
      <section class="pages" aria-label="The pages" tabindex="0">
        <p v-if="refusal" class="refusal" role="alert">{{ refusal.message }} {{ refusal.hint }}</p>
        <img
          v-for="(page, i) in pages"
          :key="page"
          :src="page"
          :alt="`Page ${i + 1} of ${pages.length}; the PDF has its text`"
        />
      </section>
    </div>
  </main>
</template>

<style scoped>
.handout {
  height: 100vh;
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  padding: 22px 24px 0;
}
.head {
  display: flex;
  gap: 22px;
  align-items: baseline;
  padding-bottom: 14px;
  flex-wrap: wrap;
}
.name {
  font-weight: 700;
}
h1 {
  font-size: 1.4rem;
}
.of {
  color: var(--on-slate-quiet);
}
.desk {
  display: grid;
  grid-template-columns: 290px minmax(0, 1fr);
  gap: 30px;
  min-height: 0;
}
.options {
  display: grid;
  gap: 8px;
  align-content: start;
  overflow-y: auto;
  padding-bottom: 20px;
}
fieldset {
  border: 0;
  padding: 0;
  margin: 0 0 6px;
  display: grid;
  gap: 2px;
}
legend {
  font-weight: 700;
  padding: 0 0 2px;
}
.line {
  display: flex;
  justify-content: space-between;
  gap: 10px;
}
select {
  font: inherit;
  background: var(--paper);
  color: var(--ink);
  border: 0;
  border-radius: 2px;
  padding: 1px 4px;
}
.word {
  text-decoration: underline;
  text-underline-offset: 4px;
  justify-self: start;
  padding: 0;
}
.do {
  display: inline-block;
  background: var(--paper);
  color: var(--ink);
  border-radius: 3px;
  padding: 6px 16px;
  font-weight: 700;
  text-decoration: none;
  margin-top: 6px;
}
.quiet {
  color: var(--on-slate-quiet);
  min-height: 1.4em;
}
progress {
  width: 100%;
}
.pages {
  overflow-y: auto;
  display: flex;
  flex-wrap: wrap;
  gap: 18px;
  align-content: start;
  padding: 4px 4px 24px;
}
.pages img {
  width: min(100%, 440px);
  background: #fff;
  border-radius: 1px;
  box-shadow: 0 2px 10px rgb(0 0 0 / 0.35);
}
.refusal {
  background: var(--paper);
  color: var(--role-wrong);
  padding: 8px 14px;
  border-radius: 3px;
  height: fit-content;
}
@media (max-width: 760px) {
  .handout {
    height: auto;
  }
  .desk {
    grid-template-columns: minmax(0, 1fr);
  }
  .pages {
    overflow: visible;
  }
}
</style>
