<script setup lang="ts">
import { useBench } from '../stores/bench'

const bench = useBench()
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
</script>

<template>
  <h2>As files</h2>
  <p v-if="bench.set" class="words">
    <a v-for="[file, name] in FILES" :key="file" class="word" :href="`/api/sets/${bench.set.id}/${file}`" download>{{
      name
    }}</a>
  </p>
</template>

<style scoped src="./panel.css"></style>
