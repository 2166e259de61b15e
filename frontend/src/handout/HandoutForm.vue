<script setup lang="ts">
import Button from 'primevue/button'
import Checkbox from 'primevue/checkbox'
import InputNumber from 'primevue/inputnumber'
import InputText from 'primevue/inputtext'
import Select from 'primevue/select'
import { computed } from 'vue'

import type { Entry } from '../api/client'
import limits from '../parts/limits.json'
import { type HandoutOptions, PAGE_KINDS } from './options'
import PickOne from '../parts/PickOne.vue'

const options = defineModel<HandoutOptions>({ required: true })
defineProps<{
  /** The likely wrong answers that a mistake can be made of. */
  entries: Entry[]
}>()

const kind = computed(() => PAGE_KINDS.find((one) => one.code === options.value.kind) ?? PAGE_KINDS[0]!)
const has = (option: string): boolean => kind.value.has.includes(option)
const mistake = computed({
  get: () => options.value.mistake || null,
  set: (code: string | null) => (options.value.mistake = code ?? ''),
})
const pick = (pairs: [unknown, string][]) => pairs.map(([code, name]) => ({ code, name }))
const FORMS = pick([
  ['faded', 'what the set leaves'],
  ['full', 'full workings'],
  ['problems', 'problems only'],
])
const KEYS = pick([
  ['pages', 'short, on few pages'],
  ['long', 'with what is done and what to ask'],
  ['margin', 'beside your copy'],
  ['none', 'not printed'],
])
const SHADINGS = pick([
  ['bars', 'strips'],
  ['circles', 'circles'],
  ['grid', 'squares cut both ways'],
  ['number-line', 'number lines'],
])
const PAPERS = pick([
  ['a4', 'A4'],
  ['letter', 'Letter'],
])
const MANY = pick([
  [0, 'as many as fit'],
  ...Array.from({ length: 8 }, (_, i): [number, string] => [i + 1, String(i + 1)]),
])
const VERSIONS = pick([
  [1, 'one'],
  [2, 'A and B'],
  [3, 'A to C'],
  [4, 'A to D'],
])
const ROOM = pick([
  [-1, 'the rest of the page'],
  ...[0, 20, 30, 40, 60, 80, 120].map((mm): [number, string] => [mm, mm ? `${mm} mm` : 'none']),
])
const room = computed({
  get: () => (options.value.fill ? -1 : options.value.space),
  set: (mm: number) => Object.assign(options.value, mm < 0 ? { fill: true } : { fill: false, space: mm }),
})
</script>

<template>
  <form class="options" aria-label="How the pages are to be" @submit.prevent>
    <div class="kinds" role="group" aria-label="What a page is">
      <Button
        v-for="one in PAGE_KINDS"
        :key="one.code"
        class="kind"
        variant="text"
        :aria-pressed="one.code === options.kind"
        :title="one.said"
        :label="one.name"
        @click="options.kind = one.code"
      />
    </div>
    <p class="quiet">{{ kind.said }}</p>
    <PickOne v-if="has('form')" v-model="options.form" label="Pupils get" :options="FORMS" />
    <label v-if="has('mistake')"
      >Which mistake
      <Select
        v-model="mistake"
        :options="entries"
        option-label="name"
        option-value="code"
        placeholder="chosen for each"
        show-clear
        filter
        aria-label="Which mistake"
    /></label>
    <PickOne v-if="has('shading')" v-model="options.shading" label="As" :options="SHADINGS" />
    <PickOne v-if="has('many')" v-model="options.per_page" label="Examples on a page, at most" :options="MANY" />
    <PickOne v-if="has('room')" v-model="room" label="Squares to work in" :options="ROOM" />
    <label
      >Which examples
      <InputText
        v-model="options.only"
        size="9"
        maxlength="200"
        placeholder="all"
        title="Their numbers, like 1, 3, 5-8"
        aria-label="Which examples: their numbers, like 1, 3, 5-8"
    /></label>
    <PickOne v-if="has('versions')" v-model="options.versions" label="Versions" :options="VERSIONS" />
    <Button
      v-if="has('versions') && (options.versions > 1 || options.kind === 'yours')"
      class="plain"
      variant="link"
      label="Other numbers"
      @click="options.seed += 1"
    />
    <label v-if="has('pictures')" class="tick"
      ><Checkbox v-model="options.pictures" binary /> pictures of the steps</label
    >
    <label v-if="has('choices')" class="tick"
      ><Checkbox v-model="options.choices" binary /> four answers to choose from, where only the problem is given</label
    >
    <template v-if="has('key')">
      <h2>For you</h2>
      <PickOne v-model="options.key" label="The key with marks" :options="KEYS" />
      <label class="tick"
        ><Checkbox v-model="options.wrong_answers" binary :disabled="options.key === 'none'" /> with what they may
        write</label
      >
    </template>
    <h2>Paper</h2>
    <PickOne v-model="options.paper" label="Size" :options="PAPERS" />
    <label class="tick"><Checkbox v-model="options.name_line" binary /> a line for name and date</label>
    <label
      >Class <InputText v-model="options.class_name" size="14" :maxlength="limits.paper_words" aria-label="Class"
    /></label>
    <label>Day <InputText v-model="options.date" size="14" :maxlength="limits.paper_words" aria-label="Day" /></label>
    <label
      >Minutes
      <InputNumber
        :model-value="options.minutes || null"
        :min="0"
        :max="limits.minutes"
        :input-props="{ size: 4 }"
        aria-label="Minutes"
        @update:model-value="options.minutes = $event ?? 0"
    /></label>
    <label class="tick"><Checkbox v-model="options.large" binary /> large print</label>
    <label class="tick"><Checkbox v-model="options.wide" binary /> wide spacing, for who reads more easily so</label>
    <label class="tick"><Checkbox v-model="options.grey" binary /> greys, for the photocopier</label>
  </form>
</template>

<style scoped>
.options {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 6px;
  align-content: start;
}
.kinds {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(9.5rem, 100%), 1fr));
  gap: 4px;
}
.kind {
  width: 100%;
  justify-content: start;
  text-align: left;
  padding: 4px 8px;
  font-size: 0.95rem;
  height: 100%;
  color: var(--on-slate);
  background: var(--slate-deep);
  border-left: 3px solid transparent;
}
.kind[aria-pressed='true'] {
  background: var(--paper);
  color: var(--ink);
  border-left-color: var(--margin-rule);
}
.options label {
  display: flex;
  flex-wrap: wrap; /* what is chosen is read whole, below its name where it is long */
  justify-content: space-between;
  align-items: center;
  gap: 2px 10px;
}
.options label.tick {
  flex-wrap: nowrap;
  justify-content: start;
}
.options :deep(.p-select) {
  flex: none;
  max-width: 100%;
}
.options :deep(.p-select-label) {
  padding: 4px 8px;
}
.options :deep(.p-inputtext) {
  padding: 4px 8px;
}
.options :deep(.p-checkbox) {
  --p-checkbox-checked-background: var(--paper);
  --p-checkbox-checked-hover-background: var(--paper);
  --p-checkbox-icon-checked-color: var(--ink);
  --p-checkbox-icon-checked-hover-color: var(--ink);
}
.plain {
  justify-self: start;
  color: inherit;
  padding: 0;
}
h2 {
  font-size: 1rem;
  padding-top: 6px;
}
.quiet {
  color: var(--on-slate-quiet);
}
</style>
