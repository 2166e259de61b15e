<script setup lang="ts">
import Button from 'primevue/button'
import Dialog from 'primevue/dialog'
import { watch } from 'vue'

import type { Setting } from '../api/client'
import { useBench } from '../stores/bench'
import { useWays } from '../stores/ways'
import OwnChecklist from './OwnChecklist.vue'

const visible = defineModel<boolean>('visible', { required: true })
const bench = useBench()
const ways = useWays()

watch(visible, (shown) => shown && ways.load(true))

function chosenFor(setting: Setting, ways: Record<string, string> | undefined): string {
  return ways?.[setting.name] ?? ''
}

async function chooseHouse(setting: Setting, event: Event): Promise<void> {
  await see(ways.choose(changed(ways.house, setting, event)))
}

/** Show what a change of the ways for all sets did. */
async function see(made: Promise<boolean>): Promise<void> {
  if (await made) await bench.houseChanged()
}

async function chooseSet(setting: Setting, event: Event): Promise<void> {
  await bench.changeSet({ ways: changed(bench.set?.ways, setting, event) })
}

function changed(ways: Record<string, string> | undefined, setting: Setting, event: Event): Record<string, string> {
  const { [setting.name]: _old, ...others } = ways ?? {}
  const code = (event.target as HTMLSelectElement).value
  return code ? { ...others, [setting.name]: code } : others
}

function withQuestions(ways: Record<string, string>, text: string): Record<string, string> {
  const { checklist: _old, ...others } = ways
  return text ? { ...others, checklist: text } : others
}
</script>

<template>
  <Dialog
    v-model:visible="visible"
    header="Ways: how this class does things"
    position="right"
    :modal="false"
    :draggable="false"
    :closable="false"
    class="ways-panel"
  >
    <table>
      <thead>
        <tr>
          <th scope="col"><span class="sr-only">What</span></th>
          <th scope="col">All sets</th>
          <th scope="col">This set</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="setting in ways.settings" :key="setting.name" :data-departs="!!bench.set?.ways[setting.name]">
          <th scope="row">{{ setting.title }}</th>
          <td>
            <select
              :value="ways.house[setting.name] ?? setting.codes[0]?.code"
              :aria-label="`${setting.title}, in all sets`"
              @change="chooseHouse(setting, $event)"
            >
              <option v-for="item in setting.codes" :key="item.code" :value="item.code">{{ item.name }}</option>
            </select>
          </td>
          <td>
            <select
              :value="chosenFor(setting, bench.set?.ways)"
              :aria-label="`${setting.title}, in this set`"
              @change="chooseSet(setting, $event)"
            >
              <option value="">as all sets</option>
              <option v-for="item in setting.codes" :key="item.code" :value="item.code">{{ item.name }}</option>
            </select>
          </td>
        </tr>
      </tbody>
    </table>
    <section v-if="ways.ways" class="questions">
      <h3>The checklist’s questions</h3>
      <div class="both">
        <div>
          <h4>All sets</h4>
          <OwnChecklist
            :text="ways.house.checklist ?? ''"
            :hangs-on="ways.ways.hangs_on"
            :standard="ways.ways.questions"
            card="/api/ways/checklist.pdf"
            whose="in all sets"
            @keep="see(ways.choose(withQuestions(ways.house, $event)))"
          />
        </div>
        <div v-if="bench.set">
          <h4>This set</h4>
          <OwnChecklist
            :text="bench.set.ways.checklist ?? ''"
            :hangs-on="ways.ways.hangs_on"
            :standard="ways.house.checklist ?? ways.ways.questions"
            :card="`/api/sets/${bench.set.id}/checklist.pdf`"
            whose="in this set"
            @keep="bench.changeSet({ ways: withQuestions(bench.set.ways, $event) })"
          />
        </div>
      </div>
    </section>
    <p>The paper behind shows at once what a change does. An example with ways of its own keeps them.</p>
    <p v-if="ways.trouble" class="trouble" role="alert">{{ ways.trouble.message }} {{ ways.trouble.hint }}</p>
    <div class="acts">
      <Button label="Done" @click="visible = false" />
      <Button label="Undo for all sets" variant="outlined" :disabled="!ways.ways?.undo" @click="see(ways.undo())" />
      <Button label="Redo" variant="outlined" :disabled="!ways.ways?.redo" @click="see(ways.redo())" />
    </div>
  </Dialog>
</template>

<style scoped>
table {
  border-collapse: collapse;
  margin-bottom: 0.8rem;
}
th {
  text-align: left;
  font-weight: 400;
  padding: 2px 14px 2px 0;
}
thead th {
  font-weight: 700;
}
td {
  padding: 2px 8px 2px 0;
}
select {
  font: inherit;
  font-size: 0.95rem;
  color: var(--ink);
  background: #fff;
  border: 1px solid #8496a0;
  border-radius: 2px;
  padding: 1px 4px;
  width: 12.2rem;
}
select:focus-visible {
  outline: 3px solid var(--focus-on-paper);
}
/* What is set for all sets has its own undo: the one above the paper leaves it alone. */
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem;
}
.trouble {
  color: var(--role-wrong);
}
tr[data-departs='true'] td:last-child select {
  border: 2px solid var(--ink);
  font-weight: 700;
}
.both {
  display: grid;
  gap: 8px;
  padding-bottom: 0.8rem;
}
h3,
h4 {
  font-size: 1rem;
  font-weight: 700;
}
h4 {
  font-weight: 400;
}
p {
  max-width: 34rem;
  font-size: 0.92rem;
  color: var(--ink-quiet);
  padding-bottom: 0.8rem;
}
</style>
