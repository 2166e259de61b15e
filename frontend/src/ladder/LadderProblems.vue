<script setup lang="ts">
import Button from 'primevue/button'
import type { Choices, LadderProblem } from '../api/client'
import MathLine from '../parts/MathLine.vue'

/** Which problems stay when the others are built anew; none where they cannot be. */
const locked = defineModel<boolean[]>('locked', { default: () => [] })
const props = defineProps<{
  problems: LadderProblem[]
  targets: Choices['targets']
  /** Pairs of misconceptions that no problem tells apart. */
  notSeparated: string[][]
}>()
defineEmits<{ swap: [at: number]; take: []; another: [] }>()

const name = (code: string) => props.targets.find((one) => one.code === code)?.name ?? code

function lock(at: number): void {
  locked.value = props.problems.map((_, i) => (i === at ? !locked.value[i] : (locked.value[i] ?? false)))
}
</script>

<template>
  <ol>
    <li v-for="(problem, i) in problems" :key="problem.text">
      <p class="harder">
        <strong v-if="problem.mark">{{ problem.mark === 'jump' ? 'skips a rung: ' : 'steps back: ' }}</strong>{{
          problem.why
        }}
      </p>
      <div class="problem">
        <span class="rung">{{ problem.rung }}</span>
        <MathLine class="math" :glyphs="problem.glyphs" />
        <span v-if="problem.target" class="rung asked">to {{ problem.target }}</span>
        <template v-if="locked.length">
          <Button class="word" :aria-pressed="locked[i]" @click="lock(i)">{{ locked[i] ? 'Kept' : 'Keep' }}</Button>
          <Button class="word" :disabled="locked[i]" @click="$emit('swap', i)">Swap</Button>
        </template>
        <details v-if="problem.reveals.length">
          <summary>
            shows {{ problem.reveals.length }} likely wrong {{ problem.reveals.length === 1 ? 'answer' : 'answers' }}
          </summary>
          <p class="quiet">{{ problem.reveals.map(name).join('; ') }}</p>
        </details>
      </div>
    </li>
  </ol>
  <p v-for="pair in notSeparated" :key="pair.join()" class="quiet">
    Not told apart: {{ pair.map(name).join(' and ') }}.
  </p>
  <p class="acts">
    <Button :label="`Put ${problems.length === 1 ? 'it' : 'them'} on the ladder`" @click="$emit('take')" />
    <Button v-if="locked.length" class="word" @click="$emit('another')">
      {{ locked.some(Boolean) ? 'Build the rest anew' : 'Others' }}
    </Button>
  </p>
</template>

<style scoped>
li {
  border-top: 1px solid var(--hair);
}
.harder {
  color: var(--ink-quiet);
  font-size: 0.9rem;
  padding-top: 4px;
}
.problem {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 14px;
  align-items: center;
  padding: 3px 0 5px;
}
.rung {
  font-size: 0.85rem;
  color: var(--ink-quiet);
  width: 2.2em;
}
.asked {
  width: auto;
}
.math {
  font-size: 1.3rem;
  min-width: 10.5em;
}
.word {
  text-decoration: underline;
  text-underline-offset: 4px;
  padding: 2px;
}
.word[aria-pressed='true'] {
  font-weight: 700;
}
details {
  font-size: 0.9rem;
  color: var(--ink-quiet);
  flex: 1;
  min-width: 14em;
}
summary {
  cursor: pointer;
}
.quiet {
  color: var(--ink-quiet);
  font-size: 0.92rem;
  max-width: 36rem;
}
.acts {
  display: flex;
  gap: 18px;
  align-items: center;
  padding-top: 12px;
  border-top: 1px solid var(--hair);
}
</style>
