<script setup lang="ts">
import { usePaper } from '../stores/paper'
import AllAnswers from './AllAnswers.vue'
import AskedFor from './AskedFor.vue'
import CanItBeRight from './CanItBeRight.vue'
import CopyNotation from './CopyNotation.vue'
import ExampleNote from './ExampleNote.vue'
import OtherWays from './OtherWays.vue'
import TheyMayWrite from './TheyMayWrite.vue'
import WhatHappened from './WhatHappened.vue'

const paper = usePaper()
</script>

<template>
  <aside class="margin" aria-label="Margin">
    <template v-if="paper.working">
      <AskedFor v-if="!paper.pencil && ['simplify', 'convert'].includes(paper.working.problem.kind)" />
      <AllAnswers
        v-if="!paper.pencil && paper.working.answer_glyphs.length && paper.working.problem.text.includes('_/')"
        :working="paper.working"
      />
      <CanItBeRight :working="paper.working" />
      <TheyMayWrite :working="paper.working" />
      <!-- What stands in pencil is no example yet: nothing can be changed of it, or judged for it. -->
      <template v-if="!paper.pencil">
        <WhatHappened :working="paper.working" />
        <OtherWays />
        <ExampleNote />
        <CopyNotation />
      </template>
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
