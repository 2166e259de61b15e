<script setup lang="ts">
import Button from 'primevue/button'
import { computed } from 'vue'

import { dayOf, kindOf } from './cells'
import type { SittingDesk } from './useSitting'

/** Whose answers, to what, on which day; whether they are kept. */
const props = defineProps<{ desk: SittingDesk }>()
const { sitting, refusal, saving, savedAt } = props.desk
const state = computed(() => {
  if (saving.value !== 'saved') return saving.value
  const at = savedAt.value
  return at ? `kept ${at.toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })}` : ''
})
</script>

<template>
  <header class="top">
    <span class="name">Keen Slate</span>
    <RouterLink class="word" to="/">Shelf</RouterLink>
    <RouterLink v-if="sitting" class="word" :to="{ name: 'class', params: { classId: sitting.class_id } }">{{
      sitting.class_name
    }}</RouterLink>
    <h1 v-if="sitting">
      <RouterLink v-if="sitting.set_id" class="word" :to="{ name: 'bench', params: { setId: sitting.set_id } }">{{
        sitting.title
      }}</RouterLink>
      <template v-else>{{ sitting.title }}</template>
    </h1>
    <span v-if="refusal" class="trouble" role="alert">{{ refusal.message }} {{ refusal.hint }}</span>
    <span class="gap" />
    <span v-if="sitting" class="quiet">{{ kindOf(sitting.kind) }}, {{ dayOf(sitting.day) }}</span>
    <span class="quiet state" role="status" :data-state="saving">{{ state }}</span>
    <Button class="word" :disabled="!desk.undone.value.length" @click="desk.undo()">Undo</Button>
  </header>
</template>

<style scoped>
.top {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 2px 14px;
  padding: 10px 4px 4px;
}
.name {
  font-weight: 700;
}
h1 {
  font-size: 1rem;
  font-weight: 400;
}
.gap {
  flex: 1;
}
.quiet {
  color: var(--on-slate-quiet);
}
.state[data-state='not saved'] {
  color: var(--focus);
  font-weight: 700;
}
.trouble {
  background: var(--paper);
  color: var(--role-wrong);
  padding: 2px 10px;
  border-radius: 3px;
}
@media print {
  .top {
    display: none;
  }
}
</style>
