<script setup lang="ts">
import Checkbox from 'primevue/checkbox'
import { ref } from 'vue'

import FileLink from '../parts/FileLink.vue'
import { useBench } from '../stores/bench'

const bench = useBench()
const pictures = ref(false)
const WITH_PICTURES = ['set.docx', 'set.odt']
const FILES: [string, string][] = [
  ['set.json', 'The set (JSON)'],
  ['problems.csv', 'Problems and answers (CSV)'],
  ['problems.tsv', 'The same, with tabs (TSV)'],
  ['problems.xlsx', 'The same for a spreadsheet (XLSX)'],
  ['set.html', 'A page to read (HTML)'],
  ['set.docx', 'A text with equations (DOCX)'],
  ['set.odt', 'A text with formulas (ODT)'],
  ['set.md', 'Text to paste (Markdown)'],
  ['qti.zip', 'Items for a test (QTI 3.0)'],
  ['qti.zip?version=2.1', 'The same in QTI 2.1'],
  ['qti.zip?to_choose=true', 'The same with four options'],
]

/** Where a file of the set is had. */
function address(file: string): string {
  const more = pictures.value && WITH_PICTURES.includes(file) ? '?pictures=true' : ''
  return `/api/sets/${bench.set?.id}/${file}${more}`
}
</script>

<template>
  <h2>As files</h2>
  <template v-if="bench.set">
    <p class="words">
      <FileLink v-for="[file, name] in FILES" :key="file" :to="address(file)">{{ name }}</FileLink>
    </p>
    <label class="tick"><Checkbox v-model="pictures" binary />pictures of the steps in DOCX and ODT</label>
  </template>
</template>

<style scoped src="./panel.css"></style>
