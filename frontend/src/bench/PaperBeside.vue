<script setup lang="ts">
import Button from 'primevue/button'
import { computed, onMounted, ref, watch } from 'vue'

import { usePaper } from '../stores/paper'
import PaperRow from './PaperRow.vue'

const paper = usePaper()

const columns = computed(() =>
  paper.working && paper.beside
    ? [
        { name: 'as here', working: paper.working },
        { name: paper.beside.name, working: paper.beside.working },
      ]
    : [],
)

/** What is set beside is asked for from far below in the margin. */
const root = ref<HTMLElement | null>(null)
const show = () => root.value?.scrollIntoView({ block: 'nearest' })
onMounted(show)
watch(() => paper.beside, show, { flush: 'post' })
</script>

<template>
  <div ref="root" class="beside">
    <section v-for="column in columns" :key="column.name" :aria-label="column.name">
      <h3>{{ column.name }}</h3>
      <PaperRow v-if="column.working.sheet" :row="column.working.sheet" />
      <template v-else>
        <PaperRow v-for="(row, i) in column.working.rows" :key="i" class="written" :row="row" />
      </template>
    </section>
    <Button class="word" @click="paper.beside = null">Put the other way away</Button>
  </div>
</template>

<style scoped>
.beside {
  scroll-margin-top: calc(4 * var(--square));
  display: grid;
  grid-template-columns: calc(15 * var(--square)) minmax(0, 1fr);
}
section {
  min-width: 0;
  overflow-x: auto;
  overflow-y: hidden;
  padding-bottom: var(--square);
}
h3 {
  font-size: 1rem;
  line-height: var(--square);
  margin-bottom: var(--square);
  width: fit-content;
  padding-right: 6px;
}
.written {
  margin-bottom: var(--square);
}
.word {
  justify-self: start;
  padding: 0 4px;
  line-height: var(--square);
  text-decoration-color: currentColor;
}
@media (max-width: 1180px) {
  .beside {
    grid-template-columns: 1fr;
  }
}
</style>
