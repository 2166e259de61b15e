<script setup lang="ts">
import Button from 'primevue/button'
import { computed, ref } from 'vue'

import type { Schemas } from '../api/client'
import { withEntry } from '../parts/withEntry'
import { useShownWays } from '../ways/useShownWays'
import WayChoice from '../ways/WayChoice.vue'
import WayGroups from '../ways/WayGroups.vue'

/** The ways that hold for all teachers of a school, where none of them chooses otherwise. */
const props = defineProps<{ school: Schemas['SchoolOut'] }>()
const emit = defineEmits<{ choose: [ways: Record<string, string>]; go: [where: 'undo' | 'redo'] }>()
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
    <p class="quiet said">This holds for all who teach here, but where one of them has chosen otherwise.</p>
    <WayGroups v-model="group" :groups="school.groups" :changed="differing" />
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
    <div class="acts">
      <Button label="Undo" variant="outlined" :disabled="!school.undo" @click="emit('go', 'undo')" />
      <Button label="Redo" variant="outlined" :disabled="!school.redo" @click="emit('go', 'redo')" />
    </div>
  </section>
</template>

<style scoped src="../classes/class.css"></style>
<style scoped>
.said {
  padding-bottom: 10px;
}
.settings {
  display: grid;
  gap: 18px;
}
.acts {
  display: flex;
  gap: 0.6rem;
  padding-top: 18px;
}
</style>
