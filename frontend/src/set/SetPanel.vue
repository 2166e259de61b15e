<script setup lang="ts">
import Drawer from 'primevue/drawer'

import { useBench } from '../stores/bench'
import SetAbout from './SetAbout.vue'
import SetFading from './SetFading.vue'
import SetFiles from './SetFiles.vue'
import SetLink from './SetLink.vue'
import SetShare from './SetShare.vue'
import SetVersions from './SetVersions.vue'

const visible = defineModel<boolean>('visible', { required: true })
const bench = useBench()
</script>

<template>
  <Drawer
    v-model:visible="visible"
    header="The set"
    position="right"
    class="wide-drawer"
    :modal="false"
    :dismissable="false"
    :close-button-props="{ 'aria-label': 'Close' }"
  >
    <div v-if="bench.set" class="whole">
      <SetAbout />
      <SetFading />
      <SetVersions @left="visible = false" />
      <SetFiles />
      <SetShare />
      <SetLink />
    </div>
  </Drawer>
</template>

<style scoped>
.whole {
  display: grid;
  gap: 0.7rem;
}
</style>
