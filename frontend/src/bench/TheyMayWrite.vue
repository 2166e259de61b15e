<script setup lang="ts">
import Button from 'primevue/button'
import { ref } from 'vue'

import type { Misconception, Working } from '../api/client'
import { dayOf } from '../answers/cells'
import MathLine from '../parts/MathLine.vue'
import { useBench } from '../stores/bench'
import { usePaper } from '../stores/paper'
import MendProblem from './MendProblem.vue'
import { useMet } from './useMet'
import WrongPicture from './WrongPicture.vue'

const props = defineProps<{ working: Working }>()
const open = ref<string | null>(null)
const bench = useBench()
const paper = usePaper()
const met = useMet(() => bench.set?.id)

function note(item: Misconception): string {
  if (item.status === 'hidden') return 'gives the right answer here: you would not see it'
  if (item.status === 'form') return 'right value, wrong form'
  // An estimate without a bound catches nothing and lets nothing through.
  const bounded = !!props.working.estimate?.low
  const caught = item.caught_by_estimate
    ? 'the estimate catches it'
    : (item.caught_by_check ?? (bounded ? 'the estimate lets it through' : ''))
  const alike = item.same_as.length ? `looks like ${item.same_as.map(nameOf).join(' and ')}` : ''
  return [caught, alike].filter(Boolean).join('; ')
}

function nameOf(code: string): string {
  return props.working.misconceptions.find((item) => item.code === code)?.name ?? code
}
</script>

<template>
  <section aria-labelledby="write-heading">
    <h2 id="write-heading">They may write</h2>
    <ul>
      <li v-for="item in working.misconceptions" :key="item.code" :data-status="item.status">
        <Button
          class="entry keep-print"
          :aria-expanded="open === item.code"
          @click="open = open === item.code ? null : item.code"
        >
          <span class="answer"><MathLine :glyphs="item.glyphs" :spoken="item.answer" /></span>
          <span class="how">
            {{ item.name }} <span class="more" aria-hidden="true">{{ open === item.code ? 'less' : 'how?' }}</span>
            <small>{{ note(item) }}</small>
            <small v-if="met[item.code]" class="met"
              >{{ met[item.code]?.did }} of {{ met[item.code]?.of }} in {{ met[item.code]?.class_name }},
              {{ dayOf(met[item.code]?.day ?? '') }}</small
            >
          </span>
        </Button>
        <div v-if="open === item.code" class="inside">
          <WrongPicture :code="item.code" :problem="working.problem.text" :jotted="item.line_glyphs">
            <p>{{ item.reason }}</p>
            <p class="ask">Ask: {{ item.question }}</p>
            <MendProblem
              v-if="!paper.pencil && (item.status === 'hidden' || item.same_as.length)"
              :working="working"
              :item="item"
            />
          </WrongPicture>
        </div>
      </li>
    </ul>
    <p v-if="!working.misconceptions.length" class="none">
      None of the misconceptions known here applies to this problem.
    </p>
  </section>
</template>

<style scoped>
li {
  border-top: 1px solid var(--hair);
}
li:last-child {
  border-bottom: 1px solid var(--hair);
}
.entry {
  display: grid;
  grid-template-columns: 68px 1fr;
  align-items: center;
  gap: 8px;
  width: 100%;
  border: 0;
  background: none;
  color: inherit;
  text-align: left;
  padding: 8px 2px;
  cursor: pointer;
}
.answer {
  font-size: 1.3rem;
  color: var(--role-wrong);
}
[data-status='hidden'] .answer {
  opacity: 0.75;
}
.how {
  line-height: 1.3;
}
.more {
  font-size: 0.85rem;
  color: var(--ink-quiet);
  text-decoration: underline;
  text-underline-offset: 3px;
}
small {
  display: block;
  font-size: 0.88rem;
  color: var(--ink-quiet);
}
.met {
  color: var(--ink);
  font-weight: 700;
}
.inside {
  padding: 0 2px 12px 78px;
  display: grid;
  gap: 6px;
  font-size: 0.95rem;
}
.ask {
  font-weight: 700;
}
.none {
  color: var(--ink-quiet);
}
</style>
