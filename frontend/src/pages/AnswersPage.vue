<script setup lang="ts">
import Button from 'primevue/button'
import Select from 'primevue/select'
import Tab from 'primevue/tab'
import TabList from 'primevue/tablist'
import TabPanel from 'primevue/tabpanel'
import TabPanels from 'primevue/tabpanels'
import Tabs from 'primevue/tabs'
import ToggleSwitch from 'primevue/toggleswitch'
import { computed, nextTick, onMounted, ref, useTemplateRef, watch } from 'vue'
import { useRouter } from 'vue-router'

import AnswersGrid from '../answers/AnswersGrid.vue'
import BringTable from '../answers/BringTable.vue'
import CellMargin from '../answers/CellMargin.vue'
import { dayOf, kindOf, KINDS } from '../answers/cells'
import EntryLog from '../answers/EntryLog.vue'
import HappenedLeaf from '../answers/HappenedLeaf.vue'
import NextLeaf from '../answers/NextLeaf.vue'
import { useSitting } from '../answers/useSitting'

const props = withDefaults(defineProps<{ sittingId: string; leaf?: string }>(), { leaf: 'wrote' })
const router = useRouter()
const desk = useSitting(props.sittingId)
const { sitting, refusal, saving, savedAt, tally } = desk
const inHand = ref<{ pupil: string; number: number } | null>(null)
const bringing = ref(false)
const logged = ref(false)
const grid = useTemplateRef<InstanceType<typeof AnswersGrid>>('grid')

const state = computed(() => {
  if (saving.value !== 'saved') return saving.value
  const at = savedAt.value
  return at ? `kept ${at.toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })}` : ''
})
const counts = computed(() => {
  const cells = [...desk.rows.values()].flat().filter((cell) => cell !== null)
  const of = (said: string) => cells.filter((cell) => cell.said === said).length
  const awayPupils = [...desk.rows.values()].filter(
    (row) => row.length && row.every((cell) => cell?.said === 'away'),
  ).length
  return [
    `${sitting.value?.pupils.length ?? 0} pupils`,
    of('blank') ? `${of('blank')} blank` : '',
    awayPupils ? `${awayPupils} away` : '',
  ]
    .filter(Boolean)
    .join(' · ')
})

function turn(leaf: string | number): void {
  void router.replace({ name: 'answers', params: { sittingId: props.sittingId, leaf: String(leaf) } })
}

/** The keyboard goes to the margin, where a teacher's own word is given. */
function overrule(): void {
  void nextTick(() => document.querySelector<HTMLElement>('#own-word ~ .acts button')?.focus())
}

watch(sitting, (now) => {
  if (now) document.title = `${now.class_name}, ${now.title} · Keen Slate`
})
onMounted(async () => {
  await desk.load()
  await nextTick()
  grid.value?.focus()
})
</script>

<template>
  <main class="answers">
    <header class="top">
      <span class="name">Keen Slate</span>
      <RouterLink class="word" to="/">Shelf</RouterLink>
      <RouterLink v-if="sitting" class="word" :to="{ name: 'class', params: { classId: sitting.class_id } }">{{
        sitting.class_name
      }}</RouterLink>
      <h1 v-if="sitting">
        <RouterLink v-if="sitting.set_id" class="word" :to="{ name: 'bench', params: { setId: sitting.set_id } }">{{
          sitting.title
        }}</RouterLink>
        <template v-else>{{ sitting.title }}</template>
      </h1>
      <span v-if="refusal" class="trouble" role="alert">{{ refusal.message }} {{ refusal.hint }}</span>
      <span class="gap" />
      <span v-if="sitting" class="quiet">{{ kindOf(sitting.kind) }}, {{ dayOf(sitting.day) }}</span>
      <span class="quiet state" role="status" :data-state="saving">{{ state }}</span>
      <Button class="word" :disabled="!desk.undone.value.length" @click="desk.undo()">Undo</Button>
    </header>
    <Tabs v-if="sitting" :value="leaf" lazy @update:value="turn">
      <div class="leaves">
        <TabList>
          <Tab value="wrote">What they wrote</Tab>
          <Tab value="happened">What happened</Tab>
          <Tab value="next">Next</Tab>
        </TabList>
        <p class="quiet">{{ counts }}</p>
        <span class="gap" />
        <p v-if="leaf === 'wrote'" class="tools">
          <Button class="word" @click="bringing = true">From a table</Button>
          <Button class="word" @click="logged = true">Log</Button>
          <label class="units"
            ><ToggleSwitch
              :model-value="sitting.labels"
              input-id="units"
              @update:model-value="desk.change({ labels: $event })"
            />
            Units count</label
          >
          <label class="kind"
            >Kind
            <Select
              :model-value="sitting.kind"
              :options="KINDS"
              option-label="name"
              option-value="code"
              aria-label="Kind of sitting"
              @update:model-value="desk.change({ kind: $event })"
          /></label>
        </p>
      </div>
      <TabPanels>
        <TabPanel value="wrote">
          <div class="wrote">
            <section class="sheet on-paper">
              <AnswersGrid
                v-if="sitting.pupils.length"
                ref="grid"
                :desk="desk"
                @pick="(pupil, number) => (inHand = { pupil, number })"
                @overrule="overrule"
              />
              <p v-else>
                This class has no pupils yet.
                <RouterLink :to="{ name: 'class', params: { classId: sitting.class_id } }">Add them</RouterLink>, then
                come back.
              </p>
            </section>
            <CellMargin v-if="inHand && tally" :desk="desk" :pupil-id="inHand.pupil" :number="inHand.number" />
          </div>
        </TabPanel>
        <TabPanel value="happened">
          <section class="sheet on-paper"><HappenedLeaf :desk="desk" /></section>
        </TabPanel>
        <TabPanel value="next"><NextLeaf :desk="desk" /></TabPanel>
      </TabPanels>
    </Tabs>
    <BringTable v-if="bringing" :desk="desk" @done="bringing = false" />
    <EntryLog v-if="logged" :sitting-id="sittingId" @done="logged = false" />
  </main>
</template>

<style scoped>
.answers {
  padding: 0 16px 24px;
}
.top {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 2px 14px;
  padding: 10px 4px 4px;
}
.name {
  font-weight: 700;
}
h1 {
  font-size: 1rem;
  font-weight: 400;
}
.gap {
  flex: 1;
}
.quiet {
  color: var(--on-slate-quiet);
}
.state[data-state='not saved'] {
  color: var(--focus);
  font-weight: 700;
}
.trouble {
  background: var(--paper);
  color: var(--role-wrong);
  padding: 2px 10px;
  border-radius: 3px;
}
.leaves {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 26px;
  align-items: center;
}
.wrote {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 350px;
  gap: 8px;
  align-items: start;
}
.sheet {
  background: var(--paper);
  color: var(--ink);
  border-radius: 3px;
  padding: 14px 20px 16px;
  min-width: 0;
}
.tools {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 22px;
  align-items: center;
  color: var(--on-slate-quiet);
}
.units,
.kind {
  display: flex;
  gap: 8px;
  align-items: center;
}
@media (max-width: 960px) {
  .wrote {
    grid-template-columns: minmax(0, 1fr);
  }
}
@media print {
  .top,
  .leaves,
  .tools {
    display: none;
  }
}
</style>
