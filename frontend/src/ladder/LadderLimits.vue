<script setup lang="ts">
import Checkbox from 'primevue/checkbox'
import InputNumber from 'primevue/inputnumber'
import InputText from 'primevue/inputtext'
import SelectButton from 'primevue/selectbutton'
import { computed } from 'vue'

import type { Choices } from '../api/client'
import limits from '../parts/limits.json'
import PickOne from '../parts/PickOne.vue'
import { OPERATIONS, type Wish } from './wish'

const wish = defineModel<Wish>({ required: true })
const props = defineProps<{
  choices: Choices
  /** How many problems the limits leave, said in words. */
  left: string
}>()
const DENOMINATORS = [...Array.from({ length: 23 }, (_, i) => i + 2), 100]
const SIGNS = OPERATIONS.map((code) => ({ code, name: code.replace('-', '−') }))

const numbers = computed(() => {
  const { denominators, largestCommon, largestWhole } = wish.value
  const many = `${denominators.length} ${denominators.length === 1 ? 'denominator' : 'denominators'}`
  return `${many}${largestCommon ? `, common up to ${largestCommon}` : ''}, wholes up to ${largestWhole}`
})
const shape = computed(() => {
  const only = props.choices.only.find((one) => one.code === wish.value.only)?.name
  const signs =
    wish.value.operations.length < OPERATIONS.length ? wish.value.operations.join(' ').replace('-', '−') : ''
  return [only, signs, wish.value.lowestTerms ? 'no term simplified' : ''].filter(Boolean).join(', ') || 'any'
})
const avoided = computed(
  () =>
    props.choices.avoid
      .filter((one) => wish.value.avoid.includes(one.code))
      .map((one) => one.name)
      .join(', ') || 'nothing',
)
const shapes = computed(() => [{ code: null as string | null, name: 'any' }, ...props.choices.only])
const sorted = (numbers: number[]) => [...numbers].sort((a, b) => a - b)
</script>

<template>
  <section class="limits" aria-label="Limits">
    <details>
      <summary>
        Numbers: {{ numbers }}<span class="effect">: {{ left }}</span>
      </summary>
      <p id="dens">Denominators</p>
      <SelectButton
        class="dens"
        :model-value="wish.denominators"
        :options="DENOMINATORS"
        multiple
        aria-labelledby="dens"
        @update:model-value="wish.denominators = sorted($event)"
      />
      <label
        >Common denominator up to
        <InputNumber v-model="wish.largestCommon" :min="2" :max="9900" :use-grouping="false" show-buttons :step="6" />
      </label>
      <label>Wholes up to <InputNumber v-model="wish.largestWhole" :min="0" :max="999" show-buttons /></label>
      <label>Answers below <InputText v-model="wish.answerBelow" autocomplete="off" placeholder="any" /></label>
      <p id="places">Places after the point</p>
      <SelectButton v-model="wish.places" :options="[1, 2, 3]" multiple :allow-empty="false" aria-labelledby="places" />
    </details>
    <details>
      <summary>Shape: {{ shape }}</summary>
      <PickOne v-model="wish.only" label="Only problems with" :options="shapes" />
      <p id="operations">Operations</p>
      <SelectButton
        v-model="wish.operations"
        :options="SIGNS"
        option-label="name"
        option-value="code"
        multiple
        :allow-empty="false"
        aria-labelledby="operations"
      />
      <label class="check"><Checkbox v-model="wish.lowestTerms" binary /> terms that cannot be simplified</label>
      <label class="check"
        ><Checkbox v-model="wish.likesFirst" binary /> on each rung: one denominator first, then one that fits, then
        both changed</label
      >
      <label
        >Label <InputText v-model="wish.label" autocomplete="off" placeholder="none" :maxlength="limits.label"
      /></label>
    </details>
    <details>
      <summary>Avoid: {{ avoided }}</summary>
      <label v-for="one in choices.avoid" :key="one.code" class="check">
        <Checkbox v-model="wish.avoid" :value="one.code" /> {{ one.name }}
      </label>
    </details>
  </section>
</template>

<style scoped>
.limits {
  display: grid;
  gap: 6px;
}
details {
  display: grid;
}
summary {
  padding: 3px 0;
}
.effect {
  font-weight: 700;
}
details[open] > :not(summary) {
  margin: 2px 0 6px 16px;
}
label {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 4px 8px;
  align-items: center;
  max-width: 22rem;
}
label.check {
  justify-content: flex-start;
  flex-wrap: nowrap;
  max-width: none;
}
label :deep(.p-inputtext) {
  width: 6.4em;
}
.dens {
  flex-wrap: wrap;
}
.dens :deep(.p-togglebutton) {
  min-width: 2.3rem;
}
</style>
