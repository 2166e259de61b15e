<script setup lang="ts">
import ToggleSwitch from 'primevue/toggleswitch'
import { onMounted, ref } from 'vue'

import { ask, client, type Refusal, type Schemas } from '../api/client'
import { useBench } from '../stores/bench'

/** Whether the set is shared with the colleagues of one's school. */
const bench = useBench()
const share = ref<Schemas['ShareOut'] | null>(null)
const refusal = ref<Refusal | null>(null)
const params = { path: { set_id: bench.set?.id ?? '' } }

async function load(): Promise<void> {
  const answer = await ask(client.GET('/api/sets/{set_id}/share', { params }))
  if (answer.ok) share.value = answer.data
  else refusal.value = answer.refusal
}

async function put(shared: boolean): Promise<void> {
  const answer = await ask(client.PUT('/api/sets/{set_id}/share', { params, body: { shared } }))
  refusal.value = answer.ok ? null : answer.refusal
  if (answer.ok) share.value = answer.data
}

onMounted(load)
</script>

<template>
  <h2>For colleagues</h2>
  <p v-if="refusal" class="refusal" role="alert">{{ refusal.message }} {{ refusal.hint }}</p>
  <template v-if="share?.school">
    <label class="share">
      <ToggleSwitch :model-value="share.shared" input-id="shared" @update:model-value="put" />
      Shared with {{ share.school }}
    </label>
    <p class="quiet">
      {{
        share.shared
          ? 'They read it as it is now, and may take a copy. What you change, they see.'
          : 'Nobody but you sees it.'
      }}
    </p>
  </template>
  <p v-else-if="share" class="quiet">You are in no school here; whoever keeps Keen Slate puts you in one.</p>
</template>

<style scoped src="./panel.css"></style>
<style scoped>
.share {
  display: flex;
  gap: 10px;
  align-items: center;
}
.quiet {
  color: var(--ink-quiet);
}
.refusal {
  color: var(--role-wrong);
}
</style>
