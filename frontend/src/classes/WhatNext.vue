<script setup lang="ts">
import Button from 'primevue/button'
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'

import { heldBy } from '../answers/cells'
import { ask, client, type Refusal, type Schemas } from '../api/client'
import AliasLinks from './AliasLinks.vue'

/** A class's groups after all that it wrote, each with what to ask and a set to be made; and who is to be asked. */
const props = defineProps<{ over: Schemas['ClassOverTime']; classId: string }>()
const router = useRouter()
const refusal = ref<Refusal | null>(null)
const making = ref<string | null>(null)
const aliases = computed(() => new Map(props.over.pupils.map((one) => [one.id, one.alias])))
const namesOf = (ids: string[]) => ids.map((id) => ({ id, alias: aliases.value.get(id) ?? '' }))
const labelOf = (group: Schemas['GroupNow']) =>
  making.value === group.codes.join() ? 'Being built…' : 'Make a set for them'

async function make(group: Schemas['GroupNow']): Promise<void> {
  making.value = group.codes.join()
  const params = { path: { class_id: props.classId } }
  const answer = await ask(client.POST('/api/classes/{class_id}/sets', { params, body: { codes: group.codes } }))
  making.value = null
  if (answer.ok) await router.push({ name: 'bench', params: { setId: answer.data.id } })
  else refusal.value = answer.refusal
}
</script>

<template>
  <section class="sheet on-paper" aria-labelledby="what-next">
    <h2 id="what-next">What comes next</h2>
    <p v-if="refusal" class="refusal" role="alert">{{ refusal.message }} {{ refusal.hint }}</p>
    <ul class="groups">
      <li v-for="group in over.groups" :key="group.codes.join()">
        <h3>{{ heldBy(group) }}</h3>
        <AliasLinks :pupils="namesOf(group.pupils)" :class-id="classId" />
        <p v-if="group.question" class="ask">Ask: “{{ group.question }}”</p>
        <Button
          class="make"
          :label="labelOf(group)"
          :aria-label="`${labelOf(group)}: ${heldBy(group)}`"
          :disabled="making !== null"
          @click="make(group)"
        />
      </li>
      <li v-if="over.unclear.length">
        <h3>to be asked</h3>
        <AliasLinks :pupils="namesOf(over.unclear)" :class-id="classId" />
        <p class="ask">Ask: “Show me how you did this one.” Nothing known here explains much of what they wrote.</p>
      </li>
    </ul>
  </section>
</template>

<style scoped src="./class.css"></style>
<style scoped>
.groups li {
  display: grid;
  grid-template-columns: minmax(0, 3fr) minmax(0, 4fr) auto;
  gap: 2px 26px;
  padding: 9px 0;
  border-top: 1px solid var(--hair);
  align-items: baseline;
}
h3 {
  font-size: 1rem;
}
h3::first-letter {
  text-transform: uppercase;
}
.ask {
  grid-column: 2;
  color: var(--ink-quiet);
}
.make {
  grid-column: 3;
  grid-row: 1 / span 2;
  align-self: center;
}
.refusal {
  color: var(--role-wrong);
}
@media (max-width: 800px) {
  .groups li {
    grid-template-columns: minmax(0, 1fr);
  }
  .groups li > * {
    grid-column: 1;
    grid-row: auto;
    justify-self: start;
  }
}
@media print {
  .make {
    display: none;
  }
}
</style>
