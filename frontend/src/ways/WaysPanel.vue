<script setup lang="ts">
import Button from 'primevue/button'
import Drawer from 'primevue/drawer'
import InputText from 'primevue/inputtext'
import SelectButton from 'primevue/selectbutton'
import { computed, ref, watch } from 'vue'

import type { Setting } from '../api/client'
import limits from '../parts/limits.json'
import KeptField from '../parts/KeptField.vue'
import { withEntry } from '../parts/withEntry'
import { useBench } from '../stores/bench'
import { useWays } from '../stores/ways'
import OwnChecklist from './OwnChecklist.vue'
import { useShownWays } from './useShownWays'
import WayChoice from './WayChoice.vue'
import WayGroups from './WayGroups.vue'
import type { Scope } from './scope'

const visible = defineModel<boolean>('visible', { required: true })
const bench = useBench()
const ways = useWays()
const group = ref('mixed')
const word = ref('')
const scope = ref<'house' | 'set'>('set')
const SCOPES = [
  { code: 'set', name: 'for this set' },
  { code: 'house', name: 'for all sets' },
]

watch(visible, (shown) => shown && ways.load(true), { immediate: true }) // it is loaded when it is first opened

/** What departs from the usual here, whoever chose it. */
const chosen = computed(() => ({ ...ways.school, ...ways.house, ...bench.set?.ways }))
/** The settings that are seen: those of the group, or those in whose words the typed one is. */
const seen = computed<Setting[]>(() => {
  const wanted = word.value.trim().toLowerCase()
  if (!wanted) return ways.settings.filter((one) => one.group === group.value)
  return ways.settings.filter((one) =>
    [one.title, ...one.codes.map((code) => code.name)].some((said) => said.toLowerCase().includes(wanted)),
  )
})
const shown = useShownWays(
  () => (visible.value ? [...new Set(seen.value.map((one) => one.group))] : []),
  () => bench.set?.id,
  () => chosen.value,
)
const others = computed(() => new Set(Object.keys(chosen.value)))
const differing = (code: string) => ways.settings.some((one) => one.group === code && others.value.has(one.name))

/** Another code or text among the ways for all sets, or for this one; none of its own where there is none. */
async function put(name: string, value: string | null, where: Scope): Promise<void> {
  if (where === 'house') await see(ways.choose(withEntry(ways.house, name, value)))
  else await bench.changeSet((now) => ({ ways: withEntry(now.ways, name, value) }))
}

/** Show what a change of the ways for all sets did. */
async function see(made: Promise<boolean>): Promise<void> {
  if (await made) await bench.houseChanged()
}

/** A line of the teacher's own words, among the ways of its group. */
interface OwnLine {
  name: 'order_words' | 'asks'
  group: string
  title: string
  placeholder: string
}
const OWN_LINES: OwnLine[] = [
  {
    name: 'order_words',
    group: 'order',
    title: 'How your class remembers the order',
    placeholder: 'your own words; they stand beside the first line',
  },
  {
    name: 'asks',
    group: 'words',
    title: 'What your class is asked before each line, on the Wall',
    placeholder: 'What would you write next?',
  },
]
const ownLine = computed(() => OWN_LINES.find((one) => one.group === group.value && !word.value.trim()))
</script>

<template>
  <Drawer
    v-model:visible="visible"
    header="Ways: how this class does things"
    position="right"
    class="wide-drawer"
    :modal="false"
    :dismissable="false"
    :close-button-props="{ 'aria-label': 'Close' }"
  >
    <div class="bar">
      <SelectButton
        v-model="scope"
        :options="SCOPES"
        option-label="name"
        option-value="code"
        :allow-empty="false"
        aria-label="For which sets"
      />
      <InputText v-model="word" type="search" aria-label="Find a way" placeholder="Find: a word" autocomplete="off" />
    </div>
    <WayGroups v-if="!word.trim()" v-model="group" :groups="ways.ways?.groups ?? []" :changed="differing" />
    <p v-if="!seen.length" role="status">No way has this word.</p>
    <p v-if="ways.trouble" class="trouble" role="alert">{{ ways.trouble.message }} {{ ways.trouble.hint }}</p>
    <div class="settings">
      <WayChoice
        v-for="setting in seen"
        :key="setting.name"
        :setting="setting"
        :shown="shown[setting.name]"
        :school="ways.school[setting.name]"
        :house="ways.house[setting.name]"
        :set="bench.set?.ways[setting.name]"
        :scope="scope"
        @choose="(code, where) => put(setting.name, code, where)"
      />
    </div>
    <section v-if="bench.set && ownLine" class="questions">
      <h3>
        <label :for="ownLine.name">{{ ownLine.title }}</label>
      </h3>
      <KeptField
        :id="ownLine.name"
        :key="`${scope} ${ownLine.name}`"
        class="own-words"
        :value="(scope === 'house' ? ways.house : bench.set.ways)[ownLine.name] ?? ''"
        :maxlength="limits.question"
        :placeholder="(scope === 'set' && ways.house[ownLine.name]) || ownLine.placeholder"
        autocomplete="off"
        @save="(text) => ownLine && put(ownLine.name, text.trim(), scope)"
      />
    </section>
    <section v-if="ways.ways && bench.set && group === 'look' && !word.trim()" class="questions">
      <h3>The checklist’s questions</h3>
      <OwnChecklist
        v-if="scope === 'house'"
        :text="ways.house.checklist ?? ''"
        :hangs-on="ways.ways.hangs_on"
        :standard="ways.school.checklist ?? ways.ways.questions"
        card="/api/ways/checklist.pdf"
        whose="in all sets"
        @keep="put('checklist', $event, 'house')"
      />
      <OwnChecklist
        v-else
        :text="bench.set.ways.checklist ?? ''"
        :hangs-on="ways.ways.hangs_on"
        :standard="ways.house.checklist ?? ways.school.checklist ?? ways.ways.questions"
        :card="`/api/sets/${bench.set.id}/checklist.pdf`"
        whose="in this set"
        @keep="put('checklist', $event, 'set')"
      />
    </section>
    <template #footer>
      <p class="quiet">
        The paper behind shows at once what a change does. An example with ways of its own keeps them.
      </p>
      <div class="acts">
        <Button label="Done" @click="visible = false" />
        <Button label="Undo for all sets" variant="outlined" :disabled="!ways.ways?.undo" @click="see(ways.undo())" />
        <Button label="Redo" variant="outlined" :disabled="!ways.ways?.redo" @click="see(ways.redo())" />
      </div>
    </template>
  </Drawer>
</template>

<style scoped>
.bar {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 14px;
  align-items: center;
  padding-bottom: 8px;
}
.settings {
  display: grid;
  gap: 18px;
}
.questions {
  padding-top: 18px;
}
h3 {
  font-size: 1rem;
}
.own-words {
  width: 100%;
}
.quiet {
  font-size: 0.9rem;
  color: var(--ink-quiet);
  padding-bottom: 6px;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem;
}
.trouble {
  color: var(--role-wrong);
}
</style>
