<script setup lang="ts">
import Button from 'primevue/button'

import type { ToldStory } from '../api/client'
import MathLine from '../parts/MathLine.vue'
import StoryText from './StoryText.vue'

/** Stories that were made; which of them stay when the others are told anew. */
const kept = defineModel<boolean[]>('kept', { required: true })
defineProps<{
  stories: ToldStory[]
  /** What rungs and calculations are called. */
  names: Record<string, string>
  busy: boolean
}>()
defineEmits<{ swap: [at: number] }>()
</script>

<template>
  <ol>
    <li v-for="(one, i) in stories" :key="one.story.source">
      <p class="about">
        <span
          >{{ names[one.rung] ?? one.story.situation_name }} <small>{{ one.rung }}</small></span
        >
        · {{ [...new Set(one.story.calculations.map((part) => names[part.rung] ?? part.rung))].join('; ') }}
        <Button class="word" :aria-pressed="kept[i]" @click="kept[i] = !kept[i]">
          {{ kept[i] ? 'Kept' : 'Keep' }}
        </Button>
        <Button class="word" :disabled="kept[i] || busy" @click="$emit('swap', i)">Swap</Button>
      </p>
      <StoryText :story="one.story" />
      <p class="quiet"><MathLine :glyphs="one.story.answer_glyphs" :spoken="one.story.answer" /></p>
    </li>
  </ol>
</template>

<style scoped>
li {
  border-top: 1px solid var(--hair);
  padding: 8px 0 12px;
  font-size: 1.15rem;
  line-height: 1.7;
}
.about {
  font-size: 0.9rem;
  color: var(--ink-quiet);
}
.about .word {
  text-decoration: underline;
  text-underline-offset: 4px;
  padding: 2px 4px;
}
.word[aria-pressed='true'] {
  font-weight: 700;
}
.quiet {
  color: var(--ink-quiet);
  font-size: 0.95rem;
}
</style>
