<script setup lang="ts">
import { useBench } from '../stores/bench'
import AllAnswers from './AllAnswers.vue'
import AskedFor from './AskedFor.vue'
import CanItBeRight from './CanItBeRight.vue'
import CopyNotation from './CopyNotation.vue'
import ExampleNote from './ExampleNote.vue'
import OtherWays from './OtherWays.vue'
import TheyMayWrite from './TheyMayWrite.vue'
import WhatHappened from './WhatHappened.vue'

const bench = useBench()
</script>

<template>
  <aside class="margin" aria-label="Margin">
    <template v-if="bench.working">
      <AskedFor v-if="['simplify', 'convert'].includes(bench.working.problem.kind)" />
      <AllAnswers
        v-if="bench.working.answer_glyphs.length && bench.working.problem.text.includes('_/')"
        :working="bench.working"
      />
      <CanItBeRight :working="bench.working" />
      <TheyMayWrite :working="bench.working" />
      <WhatHappened :working="bench.working" />
      <OtherWays />
      <ExampleNote />
      <CopyNotation />
      <section v-if="bench.working.surprises.length">
        <h2>Before you use it</h2>
        <ul>
          <li v-for="said in bench.working.surprises" :key="said">{{ said }}</li>
        </ul>
      </section>
    </template>
  </aside>
</template>

<style scoped>
.margin {
  border-left: 2px solid var(--margin-rule);
  padding: 22px 20px;
  display: grid;
  gap: 26px;
  align-content: start;
  background: var(--paper);
  grid-template-columns: minmax(0, 1fr);
}
.margin :deep(h2) {
  font-size: 1.05rem;
  padding-bottom: 6px;
}
@media (max-width: 1000px) {
  .margin {
    border-left: 0;
    border-top: 2px solid var(--margin-rule);
  }
}
</style>
