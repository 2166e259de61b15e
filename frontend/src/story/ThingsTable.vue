<script setup lang="ts">
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import Select from 'primevue/select'

import { type Thing, WORDS } from './useScenarioForm'

/** The things of a scenario, a row each; fields where it is one's own. */
const things = defineModel<Thing[]>({ required: true })
defineProps<{ own: boolean; units: string[]; sizes: string[] }>()

const KINDS = [
  { code: 'piece', name: 'a piece' },
  { code: 'stuff', name: 'stuff' },
  { code: 'doing', name: 'a doing' },
]
/** The fields of a row that are written in words, with the width of each. */
const WRITTEN = [
  { key: 'where', said: 'Where', width: '' },
  { key: 'use', said: 'Verb of taking of', width: 'verb' },
  { key: 'put', said: 'Verb of adding of', width: 'verb' },
] as const
const SIZES = [
  { key: 'from', said: 'Least' },
  { key: 'to', said: 'Most' },
] as const
</script>

<template>
  <div class="scroll">
    <table>
      <thead>
        <tr>
          <th scope="col">What it is</th>
          <th scope="col">Name, or verb</th>
          <th scope="col">Unit</th>
          <th scope="col">From</th>
          <th scope="col">To</th>
          <th scope="col">Size word</th>
          <th scope="col">Where</th>
          <th scope="col">Verb of taking</th>
          <th scope="col">Verb of adding</th>
          <th v-if="own"><span class="sr-only">Take away</span></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="(thing, i) in things" :key="i">
          <template v-if="own">
            <td>
              <Select
                v-model="thing.kind"
                :options="KINDS"
                option-label="name"
                option-value="code"
                :aria-label="`What thing ${i + 1} is`"
              />
            </td>
            <td><InputText v-model="thing.name" :aria-label="`Name of thing ${i + 1}`" /></td>
            <td>
              <Select v-model="thing.unit" :options="units" :aria-label="`Unit of thing ${i + 1}`" />
            </td>
            <td v-for="field in SIZES" :key="field.key">
              <InputText
                :model-value="String(thing[field.key])"
                class="short"
                :aria-label="`${field.said} of thing ${i + 1}`"
                @update:model-value="thing[field.key] = $event ?? ''"
              />
            </td>
            <td>
              <Select
                v-if="thing.kind === 'piece'"
                v-model="thing.size"
                :options="sizes"
                :aria-label="`Size word of thing ${i + 1}`"
              />
            </td>
            <td v-for="field in WRITTEN" :key="field.key">
              <InputText
                v-if="WORDS[thing.kind].includes(field.key)"
                v-model="thing[field.key]"
                :class="field.width"
                :aria-label="`${field.said} thing ${i + 1}${field.key === 'where' ? ' is' : ''}`"
              />
            </td>
            <td>
              <Button class="word" :aria-label="`Take thing ${i + 1} away`" @click="things.splice(i, 1)"> × </Button>
            </td>
          </template>
          <template v-else>
            <td>{{ thing.kind }}</td>
            <td>{{ thing.name }}</td>
            <td>{{ thing.unit }}</td>
            <td>{{ thing.from }}</td>
            <td>{{ thing.to }}</td>
            <td>{{ thing.size }}</td>
            <td>{{ thing.where }}</td>
            <td>{{ thing.use }}</td>
            <td>{{ thing.put }}</td>
          </template>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.scroll {
  overflow-x: auto;
}
table {
  border-collapse: collapse;
  width: 100%;
}
th,
td {
  text-align: left;
  padding: 3px 8px 3px 0;
  border-bottom: 1px solid var(--hair);
  font-size: 0.95rem;
}
th {
  font-size: 0.85rem;
  color: var(--ink-quiet);
}
td :deep(.p-inputtext) {
  width: 8.4rem;
}
td :deep(.p-inputtext.short) {
  width: 4.2rem;
}
td :deep(.p-inputtext.verb) {
  width: 5.6rem;
}
.wide {
  width: 24rem;
  max-width: 100%;
}
</style>
