<script setup lang="ts">
import { computed } from 'vue'

import type { Working } from '../api/client'
import MathLine from '../parts/MathLine.vue'
import { useBench } from '../stores/bench'

const props = defineProps<{ working: Working }>()
const bench = useBench()
// What may be asked of blank numerators: a setting each, for this example.
const ASKED = [
  { setting: 'blank_proper', name: 'proper' },
  { setting: 'blank_different', name: 'all different' },
  { setting: 'blank_lowest', name: 'lowest terms' },
]
const hidden = computed(() => props.working.count - props.working.answer_glyphs.length)

function ask(setting: string): void {
  const example = bench.example
  if (!example) return
  const code = props.working.methods[setting] === 'yes' ? 'no' : 'yes'
  void bench.changeExample({ ways: { ...example.ways, [setting]: code } })
}
</script>

<template>
  <section aria-labelledby="all-heading">
    <h2 id="all-heading">{{ working.count === 1 ? 'One answer' : `All ${working.count} answers` }}</h2>
    <p class="asked">
      Only
      <button v-for="one in ASKED" :key="one.setting" class="word" :aria-pressed="working.methods[one.setting] === 'yes'" @click="ask(one.setting)">
        {{ one.name }}
      </button>
    </p>
    <ol>
      <li v-for="(glyphs, i) in working.answer_glyphs" :key="i"><MathLine :glyphs="glyphs" /></li>
    </ol>
    <p v-if="hidden > 0" class="asked">and {{ hidden }} more</p>
  </section>
</template>

<style scoped>
.asked { color: var(--ink-quiet); font-size: 0.95rem; }
[aria-pressed='true'] { font-weight: 700; text-decoration: underline; text-decoration-thickness: 2px; }
ol { max-height: 320px; overflow-y: auto; padding-left: 1.8em; list-style: decimal; }
li { padding: 3px 0; }
</style>
