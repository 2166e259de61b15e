<script setup lang="ts">
import SelectButton from 'primevue/selectbutton'
import { computed, ref } from 'vue'

import type { Schemas } from '../api/client'
import { withEntry } from '../parts/withEntry'
import { useShownWays } from '../ways/useShownWays'
import WayChoice from '../ways/WayChoice.vue'

/** The ways that hold for all teachers of a school, where none of them chooses otherwise. */
const props = defineProps<{ school: Schemas['SchoolOut'] }>()
const emit = defineEmits<{ choose: [ways: Record<string, string>] }>()
const group = ref('mixed')
const seen = computed(() => props.school.settings.filter((one) => one.group === group.value))
const differing = (code: string) =>
  props.school.settings.some((one) => one.group === code && one.name in props.school.ways)
const shown = useShownWays(
  () => [group.value],
  () => undefined,
  () => props.school.ways,
)
</script>

<template>
  <section class="sheet on-paper" aria-labelledby="ways">
    <h2 id="ways">How {{ school.school }} does things</h2>
    <p class="quiet">This holds for all who teach here, but where one of them has chosen otherwise.</p>
    <SelectButton
      v-model="group"
      class="groups"
      :options="school.groups"
      option-label="name"
      option-value="code"
      :allow-empty="false"
      aria-label="Which ways"
    >
      <template #option="{ option }"
        >{{ option.name }}<span v-if="differing(option.code)" title="something was changed here"> ●</span></template
      >
    </SelectButton>
    <div class="settings">
      <WayChoice
        v-for="setting in seen"
        :key="setting.name"
        :setting="setting"
        :shown="shown[setting.name]"
        :school="school.ways[setting.name]"
        scope="school"
        @choose="(code) => emit('choose', withEntry(school.ways, setting.name, code))"
      />
    </div>
  </section>
</template>

<style scoped src="../classes/class.css"></style>
<style scoped>
.groups {
  flex-wrap: wrap;
  padding: 10px 0 14px;
}
.settings {
  display: grid;
  gap: 18px;
}
</style>
