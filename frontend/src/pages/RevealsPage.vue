<script setup lang="ts">
import Button from 'primevue/button'
import Select from 'primevue/select'
import { computed, onMounted, ref, watch } from 'vue'

import { ask, client, type Refusal, type Reveals } from '../api/client'
import { useLatest } from '../api/useLatest'
import MathLine from '../parts/MathLine.vue'
import PageHead from '../parts/PageHead.vue'

const props = defineProps<{ setId: string }>()
const reveals = ref<Reveals | null>(null)
const refusal = ref<Refusal | null>(null)
const { latest } = useLatest()
const added = ref<string[]>([])
const forClass = ref('')
const classes = ref<{ id: string; name: string }[]>([])
const className = computed(() => (forClass.value ? classes.value.find((one) => one.id === forClass.value)?.name : ''))
const SIGNS = { reveals: '●', form: '◐', hidden: '○' }
const SAID = { reveals: 'shows', form: 'right value, wrong form', hidden: 'hides' }

async function load(): Promise<void> {
  const params = { path: { set_id: props.setId }, query: forClass.value ? { class_id: forClass.value } : {} }
  const answer = await latest((signal) => client.GET('/api/sets/{set_id}/reveals', { params, signal }))
  if (!answer) return
  if (answer.ok) reveals.value = answer.data
  refusal.value = answer.ok ? null : answer.refusal
}

async function add(source: string): Promise<void> {
  const path = { set_id: props.setId }
  const now = await ask(client.GET('/api/sets/{set_id}', { params: { path } }))
  if (!now.ok) return void (refusal.value = now.refusal)
  const body = { version: now.data.version, source, position: null, ways: {}, words: {}, target: null }
  const answer = await ask(client.POST('/api/sets/{set_id}/examples', { params: { path }, body }))
  if (!answer.ok) return void (refusal.value = answer.refusal)
  added.value.push(source)
  await load()
}

watch(forClass, load)
onMounted(async () => {
  document.title = 'What it reveals · Keen Slate'
  void load()
  const answer = await ask(client.GET('/api/classes'))
  if (answer.ok) classes.value = [{ id: '', name: 'no class' }, ...answer.data.classes]
})
</script>

<template>
  <main class="reveals">
    <PageHead title="What it reveals" :back="{ to: { name: 'bench', params: { setId } }, name: 'Bench' }" />
    <p v-if="refusal" role="alert">{{ refusal.message }} {{ refusal.hint }}</p>
    <p v-if="classes.length > 1" class="for">
      <label for="for-class">For</label>
      <Select
        v-model="forClass"
        label-id="for-class"
        :options="classes"
        option-label="name"
        option-value="id"
        aria-label="For which class"
      />
    </p>
    <section v-if="reveals" class="sheet on-paper">
      <h2>{{ reveals.title }}</h2>
      <p class="key">● shows it · ◐ right value, wrong form · ○ hides it: the wrong way gives the right answer here</p>
      <div class="wide">
        <table>
          <thead>
            <tr>
              <th scope="col"><span class="sr-only">Misconception</span></th>
              <th v-if="className" scope="col" class="holders">hold it<br />in {{ className }}</th>
              <th v-for="(glyphs, i) in reveals.problems" :key="i" scope="col"><MathLine :glyphs="glyphs" /></th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="row in reveals.rows" :key="row.code">
              <th scope="row">{{ row.name }}</th>
              <td v-if="className" class="holders">{{ row.holders || '–' }}</td>
              <td v-for="(status, i) in row.statuses" :key="i" :data-status="status ?? 'none'">
                <template v-if="status"
                  ><span aria-hidden="true">{{ SIGNS[status] }}</span
                  ><span class="sr-only">{{ SAID[status] }}</span></template
                >
              </td>
            </tr>
          </tbody>
        </table>
      </div>
      <p v-if="reveals.teaches_estimation !== null" class="after">
        The estimate catches {{ reveals.caught }} of {{ reveals.wrong }} wrong answers:
        {{ reveals.teaches_estimation ? 'a good set for teaching estimation.' : 'not a set to teach estimation with.' }}
      </p>
      <p v-if="className && reveals.not_shown.length" class="after">
        Held in {{ className }}, and no example here has to do with it: {{ reveals.not_shown.join('; ') }}.
      </p>
      <template v-if="reveals.alike.length">
        <h3>Cannot be told apart by this set</h3>
        <ul>
          <li v-for="pair in reveals.alike" :key="pair.names.join()">{{ pair.names.join(' and ') }}</li>
        </ul>
      </template>
      <template v-if="reveals.add.length">
        <h3>Problems that would tell them apart</h3>
        <ul class="add">
          <li v-for="problem in reveals.add" :key="problem.text ?? ''">
            <MathLine :glyphs="problem.glyphs" />
            <Button class="word" @click="add(problem.text ?? '')">Put it on the ladder</Button>
          </li>
        </ul>
      </template>
      <p v-else-if="!reveals.alike.length && reveals.rows.length" class="after">
        Every misconception it shows can be told from every other.
      </p>
      <p v-if="!reveals.rows.length">None of the misconceptions known here applies to its examples.</p>
      <p v-if="added.length" class="after" role="status">Put on the ladder: {{ added.join(', ') }}</p>
    </section>
  </main>
</template>

<style scoped>
.reveals {
  max-width: 1180px;
  margin: 0 auto;
  padding: 22px 24px 60px;
}
.for {
  display: flex;
  gap: 10px;
  align-items: center;
  padding-bottom: 12px;
}
td.holders,
th.holders {
  font-size: 1rem;
  line-height: 1.15;
}
.sheet {
  background: var(--paper);
  color: var(--ink);
  border-radius: 3px;
  padding: 20px 30px 26px;
}
h2 {
  font-size: 1.15rem;
}
h3 {
  font-size: 1.02rem;
  padding-top: 16px;
}
.key,
.after {
  color: var(--ink-quiet);
  font-size: 0.95rem;
  padding: 4px 0 10px;
}
.wide {
  overflow-x: auto;
}
table {
  border-collapse: collapse;
}
th,
td {
  border-bottom: 1px solid var(--hair);
  padding: 5px 12px;
  text-align: center;
}
th[scope='row'] {
  text-align: left;
  font-weight: 400;
  min-width: 250px;
}
thead th {
  font-weight: 400;
  font-size: 1.05rem;
  white-space: nowrap;
  vertical-align: bottom;
}
td {
  font-size: 1.2rem;
}
td[data-status='reveals'] {
  color: var(--role-wrong);
}
td[data-status='hidden'] {
  color: var(--ink-quiet);
}
.add li {
  padding: 5px 0;
  font-size: 1.1rem;
}
.add .word {
  text-decoration: underline;
  text-underline-offset: 3px;
  margin-left: 14px;
}
</style>
