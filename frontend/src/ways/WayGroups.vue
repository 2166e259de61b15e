<script setup lang="ts">
import SelectButton from 'primevue/selectbutton'

import type { Schemas } from '../api/client'

/** Which group of ways is looked at; those in which something was changed are marked. */
const group = defineModel<string>({ required: true })
defineProps<{ groups: Schemas['CodeOut'][]; changed: (code: string) => boolean }>()
</script>

<template>
  <SelectButton
    v-model="group"
    class="groups"
    :options="groups"
    option-label="name"
    option-value="code"
    :allow-empty="false"
    aria-label="Which ways"
  >
    <template #option="{ option }"
      >{{ option.name }}<span v-if="changed(option.code)" title="something was changed here"> ●</span></template
    >
  </SelectButton>
</template>

<style scoped>
.groups {
  flex-wrap: wrap;
  padding-bottom: 12px;
}
</style>
