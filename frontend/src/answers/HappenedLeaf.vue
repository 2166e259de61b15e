<script setup lang="ts">
import { computed, defineAsyncComponent, ref, shallowRef, watch } from 'vue'

import { client, type Happened, type Refusal } from '../api/client'
import { useLatest } from '../api/useLatest'
import FileLink from '../parts/FileLink.vue'
import MathLine from '../parts/MathLine.vue'
import type { SittingDesk } from './useSitting'

const props = defineProps<{ desk: SittingDesk }>()

const BarChart = defineAsyncComponent(() => import('../parts/BarChart.vue'))

const found = shallowRef<Happened | null>(null)
const refusal = ref<Refusal | null>(null)
const { latest } = useLatest()

watch(
  () => props.desk.changed.value,
  async () => {
    const params = { path: { sitting_id: props.desk.sitting.value?.id ?? '' } }
    const answer = await latest((signal) => client.GET('/api/sittings/{sitting_id}/happened', { params, signal }))
    if (!answer) return
    if (answer.ok) found.value = answer.data
    refusal.value = answer.ok ? null : answer.refusal
  },
  { immediate: true },
)

const labels = computed(() => (found.value?.problems ?? []).map((_, i) => `problem ${i + 1}`))
const bars = computed(() => {
  const problems = found.value?.problems ?? []
  return [
    { name: 'right', ink: 'right' as const, values: problems.map((one) => one.right) },
    { name: 'right value, wrong form', ink: 'value' as const, values: problems.map((one) => one.value) },
    { name: 'wrong', ink: 'wrong' as const, values: problems.map((one) => one.wrong) },
    { name: 'blank', ink: 'blank' as const, values: problems.map((one) => one.blank) },
  ]
})
const main = computed(() => found.value?.codes.slice(0, found.value.main) ?? [])
const rest = computed(() => found.value?.codes.slice(found.value.main) ?? [])
</script>

<template>
  <div class="leaf">
    <p v-if="refusal" role="alert">{{ refusal.message }} {{ refusal.hint }}</p>
    <template v-if="found">
      <p class="acts">
        <FileLink :to="`/api/sittings/${desk.sitting.value?.id}/happened.pdf`">One page (PDF)</FileLink>
        <FileLink :to="`/api/sittings/${desk.sitting.value?.id}/answers.csv`">Answers as a table (CSV)</FileLink>
      </p>
      <section aria-labelledby="by-code">
        <h2 id="by-code">{{ main.length ? 'What most of them did' : 'No misconception showed' }}</h2>
        <ol class="main">
          <li v-for="one in main" :key="one.code">
            <h3>
              {{ one.name }}
              <span class="quiet"
                >· {{ one.pupils.length }} of {{ found.pupils }} pupils, {{ one.did }} of {{ one.could }} chances</span
              >
            </h3>
            <p class="who">
              <span v-for="who in one.pupils" :key="who.id"
                >{{ who.alias }} <small>{{ who.numbers.map((n) => n + 1).join(', ') }}</small></span
              >
            </p>
            <p class="ask">Ask: “{{ one.question }}”</p>
          </li>
        </ol>
        <details v-if="rest.length" open>
          <summary>{{ rest.length }} more</summary>
          <ul class="rest">
            <li v-for="one in rest" :key="one.code">
              {{ one.name }}
              <span class="quiet"
                >· {{ one.pupils.map((who) => who.alias).join(', ') }} ({{ one.did }} of {{ one.could }})</span
              >
            </li>
          </ul>
        </details>
      </section>
      <section aria-labelledby="by-problem">
        <h2 id="by-problem">Problem by problem</h2>
        <BarChart
          :labels="labels"
          :bars="bars"
          lying
          said="How the class answered each problem: right, right value, wrong, blank. The numbers stand in the table below."
        />
        <div class="wide" tabindex="0" role="region" aria-labelledby="by-problem">
          <table>
            <thead>
              <tr>
                <th scope="col">problem</th>
                <th scope="col">right</th>
                <th scope="col">value only</th>
                <th scope="col">wrong</th>
                <th scope="col">blank</th>
                <th scope="col">written oftenest</th>
                <th scope="col">it hides</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="(one, i) in found.problems" :key="i">
                <th scope="row">{{ i + 1 }}: <MathLine :glyphs="one.glyphs" /></th>
                <td>{{ one.right }}</td>
                <td>{{ one.value }}</td>
                <td>{{ one.wrong }}</td>
                <td>{{ one.blank }}</td>
                <td class="text">
                  <template v-if="one.times"
                    ><MathLine :glyphs="one.commonest" /> {{ one.times === 1 ? 'once' : `${one.times} times`
                    }}<small v-if="one.name">{{ one.name }}</small></template
                  >
                </td>
                <td class="text">
                  <small v-for="name in one.hides" :key="name">{{ name }}: gives the right answer here</small>
                </td>
              </tr>
            </tbody>
          </table>
        </div>
      </section>
    </template>
  </div>
</template>

<style scoped>
.leaf {
  display: grid;
  grid-template-columns: minmax(0, 5fr) minmax(0, 7fr);
  gap: 10px 40px;
  align-items: start;
}
.acts {
  grid-column: 1 / -1;
  display: flex;
  gap: 18px;
}
.acts .word {
  padding-left: 0;
  text-decoration-color: currentColor;
}
h2 {
  font-size: 1.15rem;
  padding-bottom: 8px;
}
h3 {
  font-size: 1.02rem;
}
.quiet {
  color: var(--ink-quiet);
  font-weight: 400;
}
.main {
  display: grid;
  gap: 16px;
}
.who {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 14px;
}
.who small {
  color: var(--ink-quiet);
}
.ask {
  font-weight: 700;
  padding-top: 2px;
}
summary {
  cursor: pointer;
  padding-top: 14px;
}
.rest {
  display: grid;
  gap: 4px;
  padding-top: 6px;
}
.wide {
  overflow-x: auto;
}
table {
  border-collapse: collapse;
  width: 100%;
  margin-top: 12px;
}
th,
td {
  font-weight: 400;
  border-bottom: 1px solid var(--hair);
  padding: 4px 8px;
  text-align: right;
}
th[scope='row'],
.text,
thead th:first-child,
thead th:nth-last-child(-n + 2) {
  text-align: left;
}
th[scope='row'] {
  white-space: nowrap;
}
thead th {
  color: var(--ink-quiet);
  font-size: 0.9rem;
  vertical-align: bottom;
}
td small {
  display: block;
  color: var(--ink-quiet);
  line-height: 1.2;
}
@media (max-width: 1000px) {
  .leaf {
    grid-template-columns: minmax(0, 1fr);
  }
}
@media print {
  .leaf {
    display: block;
  }
  .acts {
    display: none;
  }
}
</style>
