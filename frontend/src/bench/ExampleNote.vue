<script setup lang="ts">
import KeptField from '../parts/KeptField.vue'
import { usePaper } from '../stores/paper'

const paper = usePaper()
</script>

<template>
  <section v-if="paper.example">
    <h2><label for="example-note">Note</label></h2>
    <KeptField
      id="example-note"
      :key="paper.example.id"
      long
      :value="paper.example.note"
      rows="2"
      placeholder="Only you see it."
      @save="paper.changeExample({ note: $event })"
    />
  </section>
</template>
