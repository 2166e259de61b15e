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
import AnswersTop from '../answers/AnswersTop.vue'
import { KINDS } from '../answers/cells'
import EntryLog from '../answers/EntryLog.vue'
import HappenedLeaf from '../answers/HappenedLeaf.vue'
import NextLeaf from '../answers/NextLeaf.vue'
import { useSitting } from '../answers/useSitting'

const props = withDefaults(defineProps<{ sittingId: string; leaf?: string }>(), { leaf: 'wrote' })
const router = useRouter()
const desk = useSitting(props.sittingId)
const { sitting, tally } = desk
const inHand = ref<{ pupil: string; number: number } | null>(null)
const bringing = ref(false)
const logged = ref(false)
const grid = useTemplateRef<InstanceType<typeof AnswersGrid>>('grid')

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
    <AnswersTop :desk="desk" />
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

<style scoped src="../answers/page.css"></style>
