<script setup lang="ts">
/** Some pupils of a class, each with the way to its page. */
defineProps<{ pupils: { id: string; alias: string }[]; classId: string }>()
</script>

<template>
  <p>
    <template v-for="(one, i) in pupils" :key="one.id"
      >{{ i ? ', ' : ''
      }}<RouterLink :to="{ name: 'pupil', params: { classId, pupilId: one.id } }">{{ one.alias }}</RouterLink></template
    >
  </p>
</template>
