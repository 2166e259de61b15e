<script setup lang="ts">
import ConfirmPopup from 'primevue/confirmpopup'
import ProgressBar from 'primevue/progressbar'

import { useMutationObserver } from '@vueuse/core'
import { defineAsyncComponent } from 'vue'

import { signedIn, waiting } from './api/send'
import HatchDefs from './parts/HatchDefs.vue'
import ToldToast from './parts/ToldToast.vue'

const DoorPage = defineAsyncComponent(() => import('./pages/DoorPage.vue'))

// While a dialog asks for something, the page behind it cannot be reached.
useMutationObserver(
  document.body,
  () => (document.getElementById('app')!.inert = !!document.querySelector('body > .p-dialog-mask.p-overlay-mask')),
  { childList: true },
)
</script>

<template>
  <HatchDefs />
  <RouterView v-if="signedIn" />
  <DoorPage v-else />
  <ToldToast />
  <ConfirmPopup />
  <div v-if="waiting" class="waiting" role="status">
    {{ waiting }}
    <ProgressBar mode="indeterminate" :show-value="false" aria-label="Waiting" />
  </div>
</template>

<style scoped>
.waiting {
  position: fixed;
  left: 50%;
  bottom: 18px;
  transform: translateX(-50%);
  max-width: min(44rem, 92vw);
  z-index: 2000;
  background: var(--paper);
  color: var(--ink);
  padding: 10px 20px;
  border-radius: 3px;
  box-shadow: 0 2px 14px rgb(0 0 0 / 45%);
}
</style>
