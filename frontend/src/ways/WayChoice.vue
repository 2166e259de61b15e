<script setup lang="ts">
import Button from 'primevue/button'
import { computed } from 'vue'

import type { Schemas, Setting } from '../api/client'
import WayPiece from './WayPiece.vue'

/** A setting, and its ways to choose from by looking. */
const props = defineProps<{
  setting: Setting
  /** A piece of working for each of its ways, once it is there. */
  shown: Schemas['ShownWay'][] | undefined
  /** What is chosen for all sets and for this one; undefined where the one above it holds. */
  house: string | undefined
  set: string | undefined
  /** For whom is being chosen. */
  scope: 'house' | 'set'
}>()
const emit = defineEmits<{ choose: [code: string | null, scope: 'house' | 'set'] }>()

const usual = computed(() => props.setting.codes[0]?.code ?? '')
const holds = computed(() => (props.scope === 'set' ? props.set : undefined) ?? props.house ?? usual.value)
const name = (code: string | undefined) => props.setting.codes.find((one) => one.code === code)?.name ?? ''
const piece = (code: string) => props.shown?.find((one) => one.code === code)
/** What differs from what holds above it, said in words and put back with a press. */
const differs = computed(() => {
  const found: { scope: 'house' | 'set'; said: string }[] = []
  if (props.set !== undefined && props.set !== (props.house ?? usual.value))
    found.push({ scope: 'set', said: `This set: ${name(props.set)}; all sets: ${name(props.house ?? usual.value)}.` })
  if (props.house !== undefined && props.house !== usual.value)
    found.push({ scope: 'house', said: `All sets: ${name(props.house)}; usual: ${name(usual.value)}.` })
  return found
})

function choose(code: string): void {
  if (code === holds.value && !(props.scope === 'set' && props.set === undefined)) return
  const above = props.scope === 'set' ? (props.house ?? usual.value) : usual.value
  emit('choose', code === above ? null : code, props.scope)
}
</script>

<template>
  <section class="setting" :data-differs="differs.length > 0">
    <h3 :id="`way-${setting.name}`">{{ setting.title }}</h3>
    <p v-for="one in differs" :key="one.scope" class="differs">
      {{ one.said }} <Button class="word" @click="emit('choose', null, one.scope)">Put it back</Button>
    </p>
    <div class="codes" role="radiogroup" :aria-labelledby="`way-${setting.name}`">
      <Button
        v-for="one in setting.codes"
        :key="one.code"
        class="way"
        role="radio"
        :aria-checked="holds === one.code"
        @click="choose(one.code)"
      >
        <span class="name">{{ one.name }}</span>
        <WayPiece v-if="piece(one.code)" :way="piece(one.code)!" />
      </Button>
    </div>
  </section>
</template>

<style scoped>
.setting {
  display: grid;
  gap: 4px;
}
h3 {
  font-size: 1rem;
}
.differs {
  font-size: 0.9rem;
  color: var(--ink-quiet);
}
[data-differs='true'] h3::before {
  content: '● ';
  color: var(--role-carried);
}
.differs .word {
  text-decoration-color: currentColor;
  padding: 0 0.2rem;
}
.codes {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(15rem, 1fr));
  gap: 8px;
}
.way {
  display: grid;
  align-content: start;
  gap: 6px;
  text-align: left;
  padding: 4px 8px 8px;
  border: 1.5px solid var(--hair);
  border-radius: 3px;
  color: var(--ink);
  background: var(--paper);
  overflow: hidden;
}
.way:hover {
  border-color: var(--ink-quiet);
}
.way[aria-checked='true'] {
  border: 3px solid var(--ink);
  padding: 2.5px 6.5px 6.5px;
}
[aria-checked='true'] .name {
  font-weight: 700;
}
[aria-checked='true'] .name::after {
  content: ' ✓';
}
</style>
