<script setup lang="ts">
import Button from 'primevue/button'
import { onMounted, ref } from 'vue'
import { useRouter } from 'vue-router'

import { today } from '../answers/cells'
import { ask, client, type Refusal, type Schemas } from '../api/client'
import MathLine from '../parts/MathLine.vue'

const props = defineProps<{
  /** One class alone. */
  only?: string
}>()
const FEW = 3
const router = useRouter()
const found = ref<Schemas['TodayOut'][]>([])
const refusal = ref<Refusal | null>(null)
const busy = ref(false)

async function make(one: Schemas['TodayOut']): Promise<void> {
  busy.value = true
  const problems = one.problems.map((problem) => problem.text)
  const targets = one.problems.map((problem) => problem.target)
  const answer = await ask(client.POST('/api/warm-ups', { body: { day: today(), problems, targets } }))
  busy.value = false
  if (answer.ok) await router.push({ name: 'bench', params: { setId: answer.data.id } })
  else refusal.value = answer.refusal
}

onMounted(async () => {
  const answer = await ask(client.GET('/api/today', { params: { query: { day: today() } } }))
  if (answer.ok) found.value = answer.data.classes.filter((one) => !props.only || one.class_id === props.only)
})
</script>

<template>
  <section v-if="found.length" class="today on-paper" aria-labelledby="today-heading">
    <h2 id="today-heading">Today</h2>
    <p v-if="refusal" class="refusal" role="alert">{{ refusal.message }} {{ refusal.hint }}</p>
    <article v-for="one in found" :key="one.class_id" :aria-label="one.name">
      <p>
        <template v-if="only">It is time again for:</template>
        <template v-else
          >In <RouterLink :to="{ name: 'class', params: { classId: one.class_id } }">{{ one.name }}</RouterLink> it is
          time again for:</template
        >{{ ' '
        }}<template v-for="(back, i) in one.back.slice(0, FEW)" :key="back.what"
          >{{ i ? '; ' : '' }}{{ back.name }}
          <span class="quiet">({{ back.pupils }} {{ back.pupils === 1 ? 'pupil' : 'pupils' }})</span></template
        ><span v-if="one.back.length > FEW" class="quiet">; and {{ one.back.length - FEW }} more</span>
      </p>
      <p v-if="one.problems.length" class="problems">
        <MathLine v-for="problem in one.problems" :key="problem.text" :glyphs="problem.glyphs" />
        <Button class="word" :disabled="busy" @click="make(one)">Make this warm-up</Button>
      </p>
    </article>
  </section>
</template>

<style scoped>
.today {
  background: var(--paper);
  color: var(--ink);
  border-radius: 2px;
  border-left: 6px solid var(--focus);
  padding: 14px 26px 16px 20px;
  margin-bottom: 14px;
  display: grid;
  gap: 8px;
}
h2 {
  font-size: 1.1rem;
}
.problems {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 28px;
  align-items: center;
  font-size: 1.15rem;
}
.problems .word {
  font-size: 1rem;
  text-decoration-color: currentColor;
}
.quiet {
  color: var(--ink-quiet);
}
.refusal {
  color: var(--role-wrong);
}
</style>
