<script setup lang="ts">
import Button from 'primevue/button'
import Checkbox from 'primevue/checkbox'
import { computed, onMounted, ref, watch } from 'vue'

import { ask, client, type Standard } from '../api/client'
import KeptField from '../parts/KeptField.vue'
import KeptNumber from '../parts/KeptNumber.vue'
import limits from '../parts/limits.json'
import { useBench } from '../stores/bench'

const bench = useBench()
const standards = ref<Standard[]>([])
const all = ref(false)
/** What is ticked; an answer to another change does not take it back meanwhile. */
const served = ref<string[]>([])
watch(
  () => bench.set?.standards.join('|'),
  () => (served.value = bench.set?.standards ?? []),
  { immediate: true },
)
const shown = computed(() =>
  standards.value.filter((one) => all.value || one.serves || bench.set?.standards.includes(one.code)),
)

onMounted(async () => {
  const params = { path: { set_id: bench.set?.id ?? '' } }
  const answer = await ask(client.GET('/api/sets/{set_id}/standards', { params }))
  if (answer.ok) standards.value = answer.data.standards
})
</script>

<template>
  <div v-if="bench.set" class="about">
    <label class="field"
      >What it is for
      <KeptField :value="bench.set.objective" @save="bench.changeSet({ objective: $event })" />
    </label>
    <fieldset>
      <legend>Published standards it serves</legend>
      <label v-for="one in shown" :key="one.code" class="standard">
        <Checkbox v-model="served" :value="one.code" @update:model-value="bench.changeSet({ standards: $event })" />
        <span
          ><strong>{{ one.code }}</strong> {{ one.words }}</span
        >
      </label>
      <Button class="word" @click="all = !all">{{ all ? 'Only those its rungs serve' : 'All standards' }}</Button>
    </fieldset>
    <label class="field"
      >Note
      <KeptField long :value="bench.set.note" rows="2" @save="bench.changeSet({ note: $event })" />
    </label>
    <p class="lesson">
      <label
        >Minutes of the lesson
        <KeptNumber
          label="Minutes of the lesson"
          :min="0"
          :max="limits.minutes"
          :value="bench.set.lesson_minutes"
          @save="bench.changeSet({ lesson_minutes: $event ?? 0 })"
        />
      </label>
      planned: about {{ Math.max(1, Math.round(bench.set.seconds / 60)) }}
    </p>
  </div>
</template>

<style scoped>
.about {
  display: grid;
  gap: 0.7rem;
}
.field {
  display: grid;
}
.standard {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 8px;
  align-items: start;
  font-size: 0.95rem;
  padding: 2px 0;
}
fieldset .word {
  text-decoration-color: currentColor;
  padding: 2px 0;
}
</style>
