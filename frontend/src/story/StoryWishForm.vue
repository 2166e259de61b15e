<script setup lang="ts">
import InputNumber from 'primevue/inputnumber'
import Select from 'primevue/select'
import SelectButton from 'primevue/selectbutton'

import type { StoryChoices } from '../api/client'
import LadderStair from '../ladder/LadderStair.vue'
import CalculationChoice from './CalculationChoice.vue'
import type { StoryWish } from './useMakeStories'

const wish = defineModel<StoryWish>({ required: true })
defineProps<{ choices: StoryChoices; scenarios: { code: string; name: string }[] }>()

const DENOMINATORS = [2, 3, 4, 5, 6, 7, 8, 9, 10, 12, 15, 16, 20]
</script>

<template>
  <div class="wish">
    <LadderStair v-model="wish.counts" :rungs="choices.rungs" :counts="{}" />
    <h2><label for="scenario">Where they play</label></h2>
    <Select v-model="wish.scenario" input-id="scenario" :options="scenarios" option-label="name" option-value="code" />
    <h2 id="situations">What happens (none chosen: anything)</h2>
    <SelectButton
      v-model="wish.situations"
      multiple
      :options="choices.situations.filter((one) => one.code !== 'steps')"
      option-label="name"
      option-value="code"
      aria-labelledby="situations"
    />
    <CalculationChoice v-model="wish.calculations" :calculations="choices.calculations" />
    <h2 id="denominators">Denominators</h2>
    <SelectButton v-model="wish.denominators" multiple :options="DENOMINATORS" aria-labelledby="denominators" />
    <p class="rung">
      <label for="largest">Wholes up to</label>
      <InputNumber v-model="wish.largestWhole" input-id="largest" :min="0" :max="999" show-buttons />
    </p>
  </div>
</template>

<style scoped>
h2 {
  font-size: 1rem;
  padding-top: 6px;
}
.wish {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 8px;
}
.rung label {
  line-height: 1.3;
}
.rung {
  display: flex;
  gap: 12px;
  align-items: center;
  justify-content: space-between;
}
.rung :deep(.p-select) {
  flex: none;
}
.wish :deep(.p-inputnumber input) {
  width: 5rem;
}
</style>
