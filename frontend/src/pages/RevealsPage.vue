<script setup lang="ts">
import Button from 'primevue/button'
import Column from 'primevue/column'
import DataTable from 'primevue/datatable'
import Select from 'primevue/select'
import { computed, onMounted, ref, watch } from 'vue'

import { ask, client, type Refusal, type Reveals } from '../api/client'
import { useLatest } from '../api/useLatest'
import { putOnLadder } from '../ladder/putOnLadder'
import MathLine from '../parts/MathLine.vue'
import PageHead from '../parts/PageHead.vue'

type Row = Reveals['rows'][number]
const props = defineProps<{ setId: string }>()
const reveals = ref<Reveals | null>(null)
const refusal = ref<Refusal | null>(null)
const { latest } = useLatest()
const added = ref<string[]>([])
const forClass = ref('none')
const classes = ref<{ id: string; name: string }[]>([])
const className = computed(() =>
  forClass.value === 'none' ? '' : classes.value.find((one) => one.id === forClass.value)?.name,
)
const SIGNS = { reveals: '●', form: '◐', hidden: '○' }
const SAID = { reveals: 'shows', form: 'right value, wrong form', hidden: 'hides' }

async function load(): Promise<void> {
  const params = { path: { set_id: props.setId }, query: forClass.value === 'none' ? {} : { class_id: forClass.value } }
  const answer = await latest((signal) => client.GET('/api/sets/{set_id}/reveals', { params, signal }))
  if (!answer) return
  if (answer.ok) reveals.value = answer.data
  refusal.value = answer.ok ? null : answer.refusal
}

async function add(source: string): Promise<void> {
  refusal.value = await putOnLadder(props.setId, [source])
  if (refusal.value) return
  added.value.push(source)
  await load()
}

watch(forClass, load)
onMounted(async () => {
  document.title = 'What it reveals · Keen Slate'
  void load()
  const answer = await ask(client.GET('/api/classes'))
  if (answer.ok) classes.value = [{ id: 'none', name: 'no class' }, ...answer.data.classes]
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
      <DataTable :value="reveals.rows" data-key="code" scrollable size="small" removable-sort class="wide">
        <Column field="name" header="What they may do" sortable frozen row-header />
        <Column
          v-if="className"
          field="holders"
          :header="`hold it in ${className}`"
          sortable
          header-class="holders"
          body-class="holders"
        />
        <Column v-for="(glyphs, i) in reveals.problems" :key="i" body-class="seen">
          <template #header><MathLine :glyphs="glyphs" /></template>
          <template #body="{ data }">
            <span v-if="(data as Row).statuses[i]" :data-status="(data as Row).statuses[i]"
              ><span aria-hidden="true">{{ SIGNS[(data as Row).statuses[i]!] }}</span
              ><span class="sr-only">{{ SAID[(data as Row).statuses[i]!] }}</span></span
            >
          </template>
        </Column>
      </DataTable>
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

<style scoped src="../styles/reveals.css"></style>
