<script setup lang="ts">
import Button from 'primevue/button'
import { computed } from 'vue'

import type { Schemas, Setting } from '../api/client'
import type { Scope } from './scope'
import WayPiece from './WayPiece.vue'

/** A setting, and its ways to choose from by looking. */
const props = defineProps<{
  setting: Setting
  /** A piece of working for each of its ways, once it is there. */
  shown: Schemas['ShownWay'][] | undefined
  /** What is chosen for the school, for all sets and for this one; undefined where the one above it holds. */
  school?: string | undefined
  house?: string | undefined
  set?: string | undefined
  /** For whom is being chosen. */
  scope: Scope
}>()
const emit = defineEmits<{ choose: [code: string | null, scope: Scope] }>()

/** What is usual, and then what holds in each scope; the one above it, where nothing is chosen there. */
const holding = computed(() => {
  const usual = props.setting.codes[0]?.code ?? ''
  const school = props.school ?? usual
  const house = props.house ?? school
  return { usual, school, house, set: props.set ?? house }
})
const ABOVE = { school: 'usual', house: 'school', set: 'house' } as const
const SAID = { school: 'The school', house: 'All sets', set: 'This set' }
const name = (code: string) => props.setting.codes.find((one) => one.code === code)?.name ?? ''
const piece = (code: string) => props.shown?.find((one) => one.code === code)
const nameAbove = (scope: Scope) =>
  scope === 'set' ? 'all sets' : scope === 'house' && props.school !== undefined ? 'the school' : 'usual'
/** What differs from what holds above it, said in words; what may be put back here is, with a press. */
const differs = computed(() =>
  (['set', 'house', 'school'] as const)
    .filter((scope) => props[scope] !== undefined && holding.value[scope] !== holding.value[ABOVE[scope]])
    .map((scope) => ({
      scope,
      said: `${SAID[scope]}: ${name(holding.value[scope])}; ${nameAbove(scope)}: ${name(holding.value[ABOVE[scope]])}.`,
      ours: (scope === 'school') === (props.scope === 'school'),
    })),
)

function choose(code: string): void {
  const { scope } = props
  if (code === holding.value[scope] && !(scope === 'set' && props.set === undefined)) return
  emit('choose', code === holding.value[ABOVE[scope]] ? null : code, scope)
}
</script>

<template>
  <section class="setting" :data-differs="differs.length > 0">
    <h3 :id="`way-${setting.name}`">{{ setting.title }}</h3>
    <p v-for="one in differs" :key="one.scope" class="differs">
      {{ one.said }}
      <Button v-if="one.ours" class="word" @click="emit('choose', null, one.scope)">Put it back</Button>
    </p>
    <div class="codes" role="radiogroup" :aria-labelledby="`way-${setting.name}`">
      <Button
        v-for="one in setting.codes"
        :key="one.code"
        class="way"
        role="radio"
        :aria-checked="holding[scope] === one.code"
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
