<script setup lang="ts">
import Button from 'primevue/button'
import { computed, ref, watch } from 'vue'

import { client, type Glyph, type Working } from '../api/client'
import { useLatest } from '../api/useLatest'
import KeptField from '../parts/KeptField.vue'
import MathLine from '../parts/MathLine.vue'
import { withEntry } from '../parts/withEntry'
import { usePaper } from '../stores/paper'

const props = defineProps<{ working: Working }>()
const paper = usePaper()
// What may be asked of blank numerators: a setting each, for this example.
const ASKED = [
  { setting: 'blank_proper', name: 'proper' },
  { setting: 'blank_different', name: 'all different' },
  { setting: 'blank_lowest', name: 'lowest terms' },
]
const more = ref<Glyph[][]>([])
const { latest } = useLatest()
const shown = computed(() => [...props.working.answer_glyphs, ...more.value])
const rest = computed(() => !props.working.counted || props.working.count > shown.value.length)
const heading = computed(() => {
  const { count, counted } = props.working
  if (!counted) return `More than ${count.toLocaleString('en')} answers`
  return count === 1 ? 'One answer' : `All ${count.toLocaleString('en')} answers`
})
watch(
  () => props.working,
  () => (more.value = []),
)

/** The next answers after those that are shown; no more come where there are none, or too many to be gone through. */
async function showMore(): Promise<void> {
  const body = { text: props.working.problem.text, ways: props.working.methods, start: shown.value.length }
  const answer = await latest((signal) => client.POST('/api/answers', { body, signal }))
  if (answer?.ok) more.value.push(...(answer.data.answer_glyphs as Glyph[][]))
  ended.value = !!answer?.ok && !answer.data.answer_glyphs.length
}
const ended = ref(false)

/** Have the numerators worked that the teacher chose; none chosen leaves the choice to the working. */
function split(typed: string): void {
  void paper.changeExample((now) => ({ ways: withEntry(now.ways, 'split', typed.trim()) }))
}

function ask(setting: string): void {
  const example = paper.example
  if (!example) return
  const code = props.working.methods[setting] === 'yes' ? 'no' : 'yes'
  void paper.changeExample({ ways: { ...example.ways, [setting]: code } })
}
</script>

<template>
  <section aria-labelledby="all-heading">
    <h2 id="all-heading">{{ heading }}</h2>
    <p class="asked">
      Only
      <Button
        v-for="one in ASKED"
        :key="one.setting"
        class="word"
        :aria-pressed="working.methods[one.setting] === 'yes'"
        @click="ask(one.setting)"
      >
        {{ one.name }}
      </Button>
    </p>
    <p class="asked split">
      <label for="split">Numerators of your own:</label>
      <KeptField
        id="split"
        :value="working.methods.split ?? ''"
        placeholder="like 9, 4, 1"
        :maxlength="60"
        autocomplete="off"
        @save="split"
      />
    </p>
    <ol>
      <li v-for="(glyphs, i) in shown" :key="i"><MathLine :glyphs="glyphs" /></li>
    </ol>
    <p v-if="ended" class="asked">The rest is too long to be listed.</p>
    <p v-else-if="rest" class="asked">
      {{ shown.length.toLocaleString('en') }} are shown. <Button class="word" @click="showMore">Show more</Button>
    </p>
  </section>
</template>

<style scoped>
.asked {
  color: var(--ink-quiet);
  font-size: 0.95rem;
}
.split {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 8px;
  align-items: center;
  padding: 6px 0;
}
.split input {
  flex: 1 1 7em;
  min-width: 0;
}
[aria-pressed='true'] {
  font-weight: 700;
  text-decoration: underline;
  text-decoration-thickness: 2px;
}
ol {
  max-height: 320px;
  overflow-y: auto;
  padding-left: 1.8em;
  list-style: decimal;
}
li {
  padding: 3px 0;
}
</style>
