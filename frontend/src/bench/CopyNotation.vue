<script setup lang="ts">
import Button from 'primevue/button'
import { ref, watch } from 'vue'

import { ask, client, type Schemas } from '../api/client'
import { download } from '../parts/download'
import { useBench } from '../stores/bench'
import { usePaper } from '../stores/paper'

const bench = useBench()
const paper = usePaper()
const said = ref('')
const KINDS: { key: keyof Schemas['NotationOut']; name: string; file: string }[] = [
  { key: 'problem_latex', name: 'the problem in LaTeX', file: 'problem.tex' },
  { key: 'working_latex', name: 'the working in LaTeX', file: 'working.tex' },
  { key: 'problem_mathml', name: 'the problem in MathML', file: 'problem.mml' },
  { key: 'working_mathml', name: 'the working in MathML', file: 'working.mml' },
]
watch(
  () => paper.chosen,
  () => (said.value = ''),
)

async function written(key: keyof Schemas['NotationOut']): Promise<string | null> {
  const path = { set_id: bench.set?.id ?? '', example_id: paper.chosen ?? '' }
  const answer = await ask(client.GET('/api/sets/{set_id}/examples/{example_id}/notation', { params: { path } }))
  if (!answer.ok) said.value = `${answer.refusal.message} ${answer.refusal.hint}`
  return answer.ok ? answer.data[key] : null
}

async function copy(kind: (typeof KINDS)[number]): Promise<void> {
  const text = await written(kind.key)
  if (text === null) return
  try {
    await navigator.clipboard.writeText(text)
    said.value = `Copied: ${kind.name}.`
  } catch {
    said.value = 'This browser does not let the page copy. Save the file in its place.'
  }
}

async function save(kind: (typeof KINDS)[number]): Promise<void> {
  const text = await written(kind.key)
  if (text === null) return
  download(text, kind.file)
}
</script>

<template>
  <details>
    <summary>Copy it elsewhere</summary>
    <p v-for="kind in KINDS" :key="kind.key" class="kind">
      {{ kind.name }} <Button class="word" :aria-label="`Copy ${kind.name}`" @click="copy(kind)">copy</Button>
      <Button class="word" :aria-label="`Save ${kind.name}`" @click="save(kind)">save</Button>
    </p>
    <p role="status">{{ said }}</p>
  </details>
</template>

<style scoped>
summary {
  cursor: pointer;
  font-weight: 700;
}
.kind {
  padding: 2px 0;
}
.word {
  text-decoration: underline;
  text-underline-offset: 3px;
  padding: 0 2px;
}
</style>
