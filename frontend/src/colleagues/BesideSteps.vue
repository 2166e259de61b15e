<script setup lang="ts">
import type { Schemas } from '../api/client'
import WrittenStep from './WrittenStep.vue'

defineProps<{
  beside: Schemas['NextDoorView']
  /** Whose class is next door. */
  teacher: string
}>()
</script>

<template>
  <table class="beside">
    <thead>
      <tr>
        <th scope="col">{{ teacher }}</th>
        <td />
        <th scope="col">Your class</th>
      </tr>
    </thead>
    <tbody>
      <tr>
        <td class="step"><WrittenStep :row="beside.theirs" /></td>
        <td class="alike">{{ beside.mine ? 'alike' : '' }}</td>
        <td class="step"><WrittenStep v-if="beside.mine" :row="beside.mine" /></td>
      </tr>
      <tr v-for="(pair, i) in beside.beside" :key="i">
        <td class="step">
          <WrittenStep v-if="pair.theirs" :row="pair.theirs.row" :step="pair.theirs.step" />
        </td>
        <td class="alike">{{ pair.same ? 'alike' : '' }}</td>
        <td class="step">
          <WrittenStep v-if="pair.mine" :row="pair.mine.row" :step="pair.mine.step" />
        </td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
.beside {
  --square: 18px;
  --half: 9px;
  width: 100%;
  table-layout: fixed;
  border-spacing: 0;
}
th {
  text-align: left;
  font-size: 1rem;
  padding: 0 0 8px;
}
thead td,
.alike {
  width: 5rem;
}
.alike {
  text-align: center;
  vertical-align: middle;
  color: var(--ink-quiet);
  font-size: 0.88rem;
}
.step {
  vertical-align: top;
  padding: 0 0 14px;
  overflow-x: auto;
}
@media (max-width: 760px) {
  .beside {
    --square: 12px;
    --half: 6px;
  }
  thead td,
  .alike {
    width: 2.6rem;
  }
}
</style>
