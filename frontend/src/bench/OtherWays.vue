<script setup lang="ts">
import Button from 'primevue/button'
import { computed } from 'vue'

import type { OtherWay } from '../api/client'
import { usePaper } from '../stores/paper'
import { useWays } from '../stores/ways'

const paper = usePaper()
const ways = useWays()

const groups = computed(() => {
  const found = new Map<string, OtherWay[]>()
  for (const way of paper.otherWays) found.set(way.setting, [...(found.get(way.setting) ?? []), way])
  return [...found.entries()].map(([setting, ways]) => ({ setting, ways, title: titleOf(setting) }))
})
const own = computed(() => Object.keys(paper.example?.ways ?? {}).length > 0)

function titleOf(setting: string): string {
  return ways.settings.find((item) => item.name === setting)?.title ?? ''
}

async function take(way: OtherWay): Promise<void> {
  if (paper.example && !way.current) {
    await paper.changeExample({ ways: { ...paper.example.ways, [way.setting]: way.code } })
  }
}
void ways.load()
</script>

<template>
  <section v-if="groups.length" aria-labelledby="other-heading">
    <h2 id="other-heading">Other ways</h2>
    <div v-for="group in groups" :key="group.setting" class="group">
      <h3>{{ group.title }}</h3>
      <ul>
        <li v-for="way in group.ways" :key="way.code">
          <Button class="way" :aria-pressed="way.current" :disabled="way.largest === null" @click="take(way)">
            <span class="name">{{ way.name }}</span>
            <template v-if="way.largest === null"><span class="far">numbers too large</span></template>
            <template v-else>
              <span>{{ way.steps }} {{ way.steps === 1 ? 'line' : 'lines' }}</span>
              <span>to {{ way.largest }}</span>
            </template>
            <small v-if="way.large_facts">{{ way.large_facts }} beyond 12 × 12</small>
          </Button>
          <Button
            v-if="!way.current && way.largest !== null"
            class="beside"
            :aria-label="`Show ${way.name} beside this working`"
            @click="paper.showBeside(way)"
          >
            beside
          </Button>
        </li>
      </ul>
    </div>
    <Button v-if="own && paper.example" class="word" @click="paper.changeExample({ ways: {} })">
      This example has ways of its own: back to the set’s
    </Button>
  </section>
</template>

<style scoped>
.group {
  padding-bottom: 8px;
}
h3 {
  font-size: 0.88rem;
  font-weight: 400;
  color: var(--ink-quiet);
}
li {
  border-top: 1px solid var(--hair);
  display: grid;
  grid-template-columns: 1fr 3.4rem;
  align-items: baseline;
}
.beside {
  border: 0;
  background: none;
  color: var(--ink-quiet);
  font-size: 0.85rem;
  text-decoration: underline;
  text-underline-offset: 3px;
  cursor: pointer;
  padding: 5px 0;
  text-align: right;
}
.way {
  display: grid;
  grid-template-columns: 1fr 3.6em 4em;
  gap: 0 6px;
  width: 100%;
  border: 0;
  background: none;
  color: inherit;
  text-align: left;
  padding: 5px 2px;
  cursor: pointer;
  font-size: 0.95rem;
}
.way > span:not(.name) {
  text-align: right;
  color: var(--ink-quiet);
}
.way .far {
  grid-column: 2 / 4;
}
.way[aria-pressed='true'] {
  font-weight: 700;
  cursor: default;
}
.way[aria-pressed='true'] > span {
  color: inherit;
}
.way:hover:not(:disabled) .name {
  text-decoration: underline;
  text-underline-offset: 3px;
}
.way:disabled {
  cursor: default;
}
small {
  grid-column: 1 / -1;
  color: var(--ink-quiet);
  font-weight: 400;
}
.word {
  padding: 4px 0;
  font-size: 0.9rem;
  text-align: left;
  text-decoration-color: currentColor;
}
</style>
