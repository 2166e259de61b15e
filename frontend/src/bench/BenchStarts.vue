<script setup lang="ts">
import Button from 'primevue/button'
import { onMounted, ref } from 'vue'

import { ask, client, type Refusal, type Schemas } from '../api/client'
import { useBench } from '../stores/bench'

/** Three starts that suit the title of an empty set; each puts eight problems that climb on the ladder. */
const PROBLEMS = 8
const bench = useBench()
const climbs = ref<Schemas['ClimbStart'][]>([])
const refusal = ref<Refusal | null>(null)
const busy = ref('')
const setId = bench.set?.id ?? ''

async function begin(one: Schemas['ClimbStart']): Promise<void> {
  busy.value = one.name
  const spec = { from: one.first, to: one.last, steps: PROBLEMS, avoid: ['negatives'], largest_common_denominator: 60 }
  const body = { spec: { ...spec, seed: Math.floor(Math.random() * 2 ** 30) }, set_id: setId, kept: [], shunned: [] }
  const answer = await ask(client.POST('/api/ladders', { body }))
  if (answer.ok) refusal.value = await bench.takeBuilt(answer.data.problems)
  else refusal.value = answer.refusal
  busy.value = ''
}

onMounted(async () => {
  const answer = await ask(client.GET('/api/sets/{set_id}/starts', { params: { path: { set_id: setId } } }))
  if (answer.ok) climbs.value = answer.data.climbs
})
</script>

<template>
  <section class="starts" aria-labelledby="starts-heading">
    <h2 id="starts-heading">The paper is empty.</h2>
    <p>Type a problem on the left and it is worked here, or begin with eight that climb:</p>
    <p v-if="refusal" class="refusal" role="alert">{{ refusal.message }} {{ refusal.hint }}</p>
    <ul>
      <li v-for="one in climbs" :key="one.name">
        <Button class="start" :disabled="!!busy" @click="begin(one)">
          <strong>{{ one.name }}</strong>
          <span
            >{{ one.from_words }}<template v-if="one.first !== one.last"> → {{ one.to_words }}</template></span
          >
        </Button>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.starts {
  padding: var(--square) var(--square) 0 0;
  display: grid;
  gap: var(--square);
  line-height: var(--square);
  max-width: 38rem;
}
h2 {
  font-size: 1.15rem;
  line-height: var(--square);
}
ul {
  display: grid;
  gap: var(--half);
}
.start {
  display: grid;
  width: 100%;
  text-align: left;
  border: 2px solid var(--ink);
  border-radius: 3px;
  background: var(--paper);
  padding: 9px 16px;
}
.start:hover:not(:disabled) {
  background: var(--shade);
}
.start span {
  color: var(--ink-quiet);
}
.refusal {
  color: var(--role-wrong);
}
</style>
