<script setup lang="ts">
import type { Choices } from '../api/client'
import { OPERATIONS, type Wish } from './wish'
import limits from '../parts/limits.json'

const wish = defineModel<Wish>({ required: true })
defineProps<{ choices: Choices }>()
const DENOMINATORS = Array.from({ length: 23 }, (_, i) => i + 2)

function flip<T>(list: T[], item: T): T[] {
  return list.includes(item) ? list.filter((one) => one !== item) : [...list, item]
}

function number(event: Event): number | null {
  const typed = (event.target as HTMLInputElement).value
  return typed === '' ? null : Math.round(Number(typed))
}
</script>

<template>
  <fieldset>
    <legend>Limits</legend>
    <p id="dens">Denominators</p>
    <p class="dens" role="group" aria-labelledby="dens">
      <button
        v-for="d in DENOMINATORS"
        :key="d"
        type="button"
        :aria-pressed="wish.denominators.includes(d)"
        @click="wish.denominators = flip(wish.denominators, d).sort((a, b) => a - b)"
      >
        {{ d }}
      </button>
    </p>
    <p class="fields">
      <label
        >Common denominator up to
        <input type="number" min="2" :value="wish.largestCommon ?? ''" @input="wish.largestCommon = number($event)"
      /></label>
      <label
        >Wholes up to
        <input
          type="number"
          min="0"
          max="999"
          :value="wish.largestWhole"
          @input="wish.largestWhole = number($event) ?? 0"
      /></label>
      <label>Answers below <input v-model="wish.answerBelow" autocomplete="off" placeholder="any" /></label>
      <label
        >Label <input v-model="wish.label" autocomplete="off" placeholder="none" :maxlength="limits.label"
      /></label>
    </p>
    <p id="operations">Operations</p>
    <p class="dens" role="group" aria-labelledby="operations">
      <button
        v-for="operation in OPERATIONS"
        :key="operation"
        type="button"
        :aria-pressed="wish.operations.includes(operation)"
        :disabled="wish.operations.length === 1 && wish.operations[0] === operation"
        @click="wish.operations = OPERATIONS.filter((one) => flip(wish.operations, operation).includes(one))"
      >
        {{ operation.replace('-', '−') }}
      </button>
    </p>
    <p id="places">Places after the point</p>
    <p class="dens" role="group" aria-labelledby="places">
      <button
        v-for="count in [1, 2, 3]"
        :key="count"
        type="button"
        :aria-pressed="wish.places.includes(count)"
        :disabled="wish.places.length === 1 && wish.places[0] === count"
        @click="wish.places = flip(wish.places, count).sort()"
      >
        {{ count }}
      </button>
    </p>
    <p class="checks">
      <label><input v-model="wish.lowestTerms" type="checkbox" /> terms that cannot be simplified</label>
      <label
        ><input v-model="wish.likesFirst" type="checkbox" /> on each rung: one denominator first, then one that fits,
        then both changed</label
      >
    </p>
    <p>Avoid</p>
    <p class="checks">
      <label v-for="one in choices.avoid" :key="one.code"
        ><input
          type="checkbox"
          :checked="wish.avoid.includes(one.code)"
          @change="wish.avoid = flip(wish.avoid, one.code)"
        />
        {{ one.name }}</label
      >
    </p>
  </fieldset>
</template>

<style scoped>
fieldset {
  border: 0;
  padding: 0;
  margin: 0;
}
legend {
  font-weight: 700;
  padding: 0;
}
.dens {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
  padding: 2px 0 8px;
}
.dens button {
  min-width: 2.1em;
  padding: 1px 4px;
  border: 1.5px solid var(--on-slate-quiet);
  border-radius: 3px;
  background: none;
  color: inherit;
  cursor: pointer;
}
.dens button[aria-pressed='true'] {
  background: var(--paper);
  color: var(--ink);
  border-color: var(--paper);
  font-weight: 700;
}
.fields {
  display: grid;
  gap: 4px;
  max-width: 20rem;
  padding-bottom: 8px;
}
.fields label {
  display: flex;
  justify-content: space-between;
  gap: 8px;
  align-items: baseline;
}
.fields input {
  font: inherit;
  width: 4.6em;
  background: var(--paper);
  color: var(--ink);
  border: 0;
  border-radius: 2px;
  padding: 1px 6px;
}
.checks {
  display: grid;
  gap: 2px;
}
.checks label {
  display: flex;
  gap: 6px;
  align-items: baseline;
}
</style>
