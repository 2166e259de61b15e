<script setup lang="ts">
import Button from 'primevue/button'
import { computed, defineAsyncComponent, ref } from 'vue'

import type { Schemas } from '../api/client'
import { dayOf } from '../answers/cells'
import ChanceStrip from './ChanceStrip.vue'

const props = defineProps<{ over: Schemas['ClassOverTime']; classId: string }>()

const BarChart = defineAsyncComponent(() => import('../parts/BarChart.vue'))

const FEW = 6
const all = ref(false)
const codes = computed(() => (all.value ? props.over.codes : props.over.codes.slice(0, FEW)))
const labels = computed(() => props.over.sittings.map((one) => dayOf(one.day)))
const bars = computed(() => [
  { name: 'right', ink: 'right' as const, values: props.over.sittings.map((one) => one.right) },
  { name: 'not right', ink: 'wrong' as const, values: props.over.sittings.map((one) => one.answered - one.right) },
])
/** The rung that a pupil reached last, in words, and how many before it. */
function reachedBy(pupil: Schemas['PupilOverTime']): string {
  const last = pupil.reached.at(-1)
  const before = pupil.reached.length - 1
  return last ? `${last.name}${before ? ` (${before} before)` : ''}` : '–'
}
const aliases = computed(() => new Map(props.over.pupils.map((one) => [one.id, one.alias])))
</script>

<template>
  <section class="sheet on-paper" aria-labelledby="over-time">
    <h2 id="over-time">Over time</h2>
    <BarChart
      v-if="over.sittings.length > 1"
      :labels="labels"
      :bars="bars"
      said="Answers that were right and not right in each sitting; the numbers stand in the list of sittings above."
    />
    <div class="wide">
      <table>
        <thead>
          <tr>
            <th scope="col">what they do</th>
            <th scope="col">in each sitting: how often it showed, of its chances</th>
            <th scope="col">hold it now</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="one in codes" :key="one.code">
            <th scope="row">{{ one.name }}</th>
            <td><ChanceStrip :chances="one.sittings" /></td>
            <td>{{ one.holders.map((id) => aliases.get(id)).join(', ') || '–' }}</td>
          </tr>
        </tbody>
      </table>
    </div>
    <Button v-if="over.codes.length > FEW" class="word no-print" @click="all = !all">
      {{ all ? 'The first ones only' : `All ${over.codes.length}` }}
    </Button>
    <h2 class="pupils">Pupils</h2>
    <div class="wide">
      <table>
        <thead>
          <tr>
            <th scope="col">alias</th>
            <th scope="col">right</th>
            <th scope="col">holds</th>
            <th scope="col">no longer</th>
            <th scope="col">rung reached last</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="one in over.pupils" :key="one.id">
            <th scope="row">
              <RouterLink :to="{ name: 'pupil', params: { classId, pupilId: one.id } }">{{ one.alias }}</RouterLink>
            </th>
            <td class="count">{{ one.answered ? `${one.right} of ${one.answered}` : '–' }}</td>
            <td>
              <span v-for="held in one.holds" :key="held.code" class="held"
                >{{ held.name }} <strong>{{ held.word }}</strong></span
              >
              <template v-if="!one.holds.length">–</template>
            </td>
            <td>{{ one.no_longer.map((gone) => gone.name).join(', ') || '–' }}</td>
            <td>{{ reachedBy(one) }}</td>
          </tr>
        </tbody>
      </table>
    </div>
  </section>
</template>

<style scoped src="./class.css"></style>
<style scoped>
.held {
  display: block;
}
.count {
  white-space: nowrap;
}
.pupils {
  padding-top: 18px;
}
.sheet > .word {
  padding-left: 0;
  text-decoration-color: currentColor;
}
</style>
