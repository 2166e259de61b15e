<script setup lang="ts">
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { computed } from 'vue'

import limits from '../parts/limits.json'
import { useBench } from '../stores/bench'
import { usePaper } from '../stores/paper'

defineEmits<{ keys: []; ways: []; whole: [] }>()
const bench = useBench()
const paper = usePaper()

const state = computed(() => {
  if (bench.saving !== 'saved') return bench.saving
  const at = bench.savedAt ?? (bench.set ? new Date(bench.set.changed_at) : null)
  return at ? `saved ${at.toLocaleTimeString(undefined, { hour: '2-digit', minute: '2-digit' })}` : ''
})
/** The minutes planned for the set, beside those of the lesson. */
const minutes = computed(() => {
  if (!bench.set?.examples.length) return ''
  const planned = `about ${Math.max(1, Math.round(bench.set.seconds / 60))}`
  return bench.set.lesson_minutes ? `${planned} of ${bench.set.lesson_minutes} minutes` : `${planned} minutes`
})
const tooLong = computed(() => !!bench.set?.lesson_minutes && bench.set.seconds > 60 * bench.set.lesson_minutes)

async function rename(event: Event): Promise<void> {
  const field = event.target as HTMLInputElement
  const wanted = field.value.trim()
  if (wanted && wanted !== bench.set?.title) await bench.changeSet({ title: wanted })
  field.value = bench.set?.title ?? ''
}
</script>

<template>
  <header class="top">
    <span class="name">Keen Slate</span>
    <RouterLink class="word" to="/">Shelf</RouterLink>
    <h1 v-if="bench.set" class="title">
      <InputText
        :model-value="bench.set.title"
        :size="'small'"
        :maxlength="limits.title"
        :style="{ width: `${Math.max(12, Math.min(30, bench.set.title.length + 1))}ch` }"
        aria-label="Title of the set"
        autocomplete="off"
        @change="rename"
        @keydown.enter="($event.target as HTMLInputElement).blur()"
      />
    </h1>
    <span class="state" role="status" :data-state="bench.saving">{{ state }}</span>
    <span v-if="bench.trouble" class="trouble" role="alert">
      {{ bench.trouble.message }} <Button class="word" @click="bench.tryAgain()">Try again</Button>
    </span>
    <span class="gap" />
    <Button
      v-if="minutes"
      title="Planned for the class"
      class="word minutes"
      :data-too-long="tooLong"
      @click="$emit('whole')"
    >
      {{ minutes }}<span v-if="tooLong" class="sr-only">: longer than the lesson</span>
    </Button>
    <Button :title="bench.set?.undo ?? ''" class="word" :disabled="!bench.set?.undo" @click="bench.undo()">
      Undo
    </Button>
    <Button :title="bench.set?.redo ?? ''" class="word" :disabled="!bench.set?.redo" @click="bench.redo()">
      Redo
    </Button>
    <Button v-if="bench.set" class="word" @click="$emit('whole')">The set</Button>
    <RouterLink
      v-if="bench.set"
      class="word"
      :to="{ name: 'wall', params: { setId: bench.set.id, exampleId: paper.chosen ?? '' } }"
      >Wall</RouterLink
    >
    <RouterLink v-if="bench.set" class="word" :to="{ name: 'handout', params: { setId: bench.set.id } }"
      >Handout</RouterLink
    >
    <RouterLink v-if="bench.set" class="word" :to="{ name: 'reveals', params: { setId: bench.set.id } }"
      >Reveals</RouterLink
    >
    <RouterLink v-if="bench.set" class="word" :to="{ name: 'classes', query: { set: bench.set.id } }"
      >Answers</RouterLink
    >
    <Button v-if="bench.set" class="word" @click="$emit('ways')">Ways</Button>
    <Button title="Help" class="word" aria-label="Help" @click="$emit('keys')">?</Button>
  </header>
</template>

<style scoped>
.top {
  min-width: 0;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 2px 5px;
  padding: 6px 20px;
  min-height: 46px;
}
.name {
  font-weight: 700;
}
.title {
  font-size: 1rem;
  font-weight: 400;
  min-width: 0;
}
.title input {
  background: none;
  border: 0;
  border-bottom: 1px solid transparent;
  color: inherit;
  padding: 2px 4px;
  max-width: min(100%, calc(100vw - 44px));
}
.title input:hover,
.title input:focus {
  border-bottom-color: var(--on-slate-quiet);
}
.top .word {
  padding: 0.2rem 0.3rem;
}
.state,
.minutes {
  color: var(--on-slate-quiet);
  font-size: 0.9rem;
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
  font-size: 0.9rem;
}
.minutes[data-too-long='true'] {
  color: var(--focus);
  font-weight: 700;
}
.gap {
  flex: 1;
}
</style>
