<script setup lang="ts">
import type { Checked } from '../api/client'

defineProps<{
  /** A pupil's working, judged line by line. */
  checked: Checked
}>()
</script>

<template>
  <ol class="lines">
    <li v-for="(line, i) in checked.lines" :key="i" :class="{ first: i === checked.first_wrong }">
      <span class="mark" :class="{ wrong: line.equal === false }">{{
        line.side ? '·' : line.equal === null ? '?' : line.equal ? '=' : '≠'
      }}</span>
      {{ line.text.replace(/^= ?/, '') }}
      <small v-if="line.side">true, on the side</small>
      <small v-else-if="line.names.length">{{ line.names.join(', or ') }}</small>
      <small v-else-if="i === checked.first_wrong">the first line that is not equal to the one before</small>
      <small v-for="said in line.fault_texts" :key="said">{{ said }}</small>
    </li>
  </ol>
</template>

<style scoped>
.lines {
  display: grid;
  gap: 4px;
  font-size: 1.05rem;
}
.mark {
  display: inline-block;
  width: 1.2em;
  text-align: center;
  font-weight: 700;
}
.wrong {
  color: var(--role-wrong);
}
.first {
  outline: 2px solid var(--role-wrong);
  outline-offset: 3px;
  border-radius: 2px;
}
small {
  display: block;
  padding-left: 1.5em;
  font-size: 0.88rem;
  color: var(--ink-quiet);
}
</style>
