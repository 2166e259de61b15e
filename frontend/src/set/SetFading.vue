<script setup lang="ts">
import Button from 'primevue/button'

import type { ExampleSummary } from '../api/client'
import MathLine from '../parts/MathLine.vue'
import PickOne from '../parts/PickOne.vue'
import { useBench } from '../stores/bench'

const bench = useBench()

/** Every choice of how much of an example pupils fill in, as said to the teacher. */
function choices(item: ExampleSummary): { code: number; name: string }[] {
  return Array.from({ length: item.steps + 1 }, (_, hide) => ({ code: hide, name: said(hide, item.steps) }))
}

function said(hide: number, steps: number): string {
  if (!hide) return 'full'
  if (hide === steps) return 'problem only'
  return hide === 1 ? 'last step blank' : `last ${hide} steps blank`
}

async function fadeAll(plan: boolean): Promise<void> {
  await bench.fade(Object.fromEntries(bench.examples.map((item) => [item.id, plan ? item.planned_hide : 0])))
}
</script>

<template>
  <h2>What pupils fill in</h2>
  <table>
    <tbody>
      <tr v-for="item in bench.examples" :key="item.id">
        <th scope="row"><MathLine :glyphs="item.glyphs" :spoken="item.spoken" /></th>
        <td>
          <PickOne
            bare
            :label="`What pupils fill in of ${item.text}`"
            :model-value="Math.min(item.fading.hide, item.steps)"
            :options="choices(item)"
            @update:model-value="bench.fade({ [item.id]: $event })"
          />
        </td>
        <td class="quiet">{{ item.points }} {{ item.points === 1 ? 'mark' : 'marks' }}</td>
      </tr>
    </tbody>
  </table>
  <p class="words">
    <Button class="word" @click="fadeAll(true)">Fade step by step</Button>
    <Button class="word" @click="fadeAll(false)">All in full</Button>
  </p>
</template>

<style scoped src="./panel.css"></style>
<style scoped>
table {
  border-collapse: collapse;
}
th {
  text-align: left;
  font-weight: 400;
  padding: 3px 14px 3px 0;
}
.quiet {
  color: var(--ink-quiet);
  padding-left: 12px;
  font-size: 0.92rem;
}
</style>
