<script setup lang="ts">
import KeptField from '../parts/KeptField.vue'
import { useBench } from '../stores/bench'

const bench = useBench()
</script>

<template>
  <section v-if="bench.example">
    <h2><label for="example-note">Note</label></h2>
    <KeptField
      id="example-note"
      :key="bench.example.id"
      long
      :value="bench.example.note"
      rows="2"
      placeholder="Only you see it."
      @save="bench.changeExample({ note: $event })"
    />
  </section>
</template>
