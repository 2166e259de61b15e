<script setup lang="ts">
import { computed, onMounted, ref } from 'vue'

import { ask, client, type Entry, type Refusal } from '../api/client'
import MathLine from '../parts/MathLine.vue'
import PageHead from '../parts/PageHead.vue'

const entries = ref<Entry[]>([])
const refusal = ref<Refusal | null>(null)
const OFTEN = ['', 'seldom', 'now and then', 'often']
const families = computed(() => [...new Set(entries.value.map((entry) => entry.family))])

onMounted(async () => {
  document.title = 'Likely wrong answers · Keen Slate'
  const answer = await ask(client.GET('/api/misconceptions'))
  if (answer.ok) entries.value = answer.data.entries
  else refusal.value = answer.refusal
})
</script>

<template>
  <main class="catalogue">
    <PageHead title="Likely wrong answers" />
    <p v-if="refusal" role="alert">{{ refusal.message }} {{ refusal.hint }}</p>
    <section v-for="family in families" :key="family" class="sheet on-paper">
      <h2>{{ family }}</h2>
      <ul>
        <li v-for="entry in entries.filter((one) => one.family === family)" :key="entry.code">
          <p class="example">
            <MathLine :glyphs="entry.problem_glyphs" />
            <span class="wrong"> = <MathLine :glyphs="entry.answer_glyphs" /></span>
            <small>right: <MathLine :glyphs="entry.right_glyphs" /></small>
          </p>
          <div>
            <h3>
              {{ entry.name }} <small>{{ OFTEN[entry.often] }}</small>
            </h3>
            <p class="wrong">
              <template v-for="(glyphs, i) in entry.line_glyphs" :key="i"
                ><MathLine :glyphs="glyphs" /><template v-if="i < entry.line_glyphs.length - 1">; </template></template
              >
            </p>
            <p>{{ entry.reason }}</p>
            <p class="ask">Ask: {{ entry.question }}</p>
          </div>
        </li>
      </ul>
    </section>
    <p v-if="entries.length" class="note">
      How often one is met is common practice, not a count: it orders what the margin shows.
    </p>
  </main>
</template>

<style scoped>
.catalogue {
  max-width: 1060px;
  margin: 0 auto;
  padding: 22px 24px 60px;
}
.sheet {
  background: var(--paper);
  color: var(--ink);
  border-radius: 3px;
  padding: 20px 30px 10px;
  margin-bottom: 18px;
}
h2 {
  font-size: 1.15rem;
}
li {
  display: grid;
  grid-template-columns: 270px 1fr;
  gap: 6px 24px;
  padding: 14px 0;
  border-top: 1px solid var(--hair);
}
li:first-child {
  border-top: 0;
}
.example {
  font-size: 1.25rem;
  line-height: 1.5;
}
.example small {
  display: block;
}
small {
  font-size: 0.88rem;
  font-weight: 400;
  color: var(--ink-quiet);
}
h3 {
  font-size: 1.02rem;
}
.wrong {
  color: var(--role-wrong);
}
.ask {
  font-weight: 700;
}
.note {
  color: var(--on-slate-quiet);
}
@media (max-width: 760px) {
  li {
    grid-template-columns: 1fr;
  }
}
</style>
