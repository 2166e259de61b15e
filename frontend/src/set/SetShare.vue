<script setup lang="ts">
import Button from 'primevue/button'
import Checkbox from 'primevue/checkbox'
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

async function put(shared: boolean, withIds: string[] | null = null): Promise<void> {
  const body = { shared, with_ids: withIds }
  const answer = await ask(client.PUT('/api/sets/{set_id}/share', { params, body }))
  refusal.value = answer.ok ? null : answer.refusal
  if (answer.ok) share.value = answer.data
}

/** Another choice of those with whom alone the set is shared; with nobody, it is shared with all again. */
const choose = (ids: string[]) => put(true, ids.length ? ids : null)

onMounted(load)
</script>

<template>
  <h2>For colleagues</h2>
  <p v-if="refusal" class="refusal" role="alert">{{ refusal.message }} {{ refusal.hint }}</p>
  <template v-if="share?.school">
    <label class="share">
      <ToggleSwitch :model-value="share.shared" input-id="shared" @update:model-value="put($event)" />
      Shared with {{ share.school }}
    </label>
    <p class="quiet">
      {{
        share.shared
          ? 'They read it as it is now, and may take a copy. What you change, they see.'
          : 'Nobody but you sees it.'
      }}
    </p>
    <fieldset v-if="share.shared && share.colleagues.length > 1">
      <legend>{{ share.with_ids ? 'With these alone' : 'With all of them, or with these alone' }}</legend>
      <label v-for="one in share.colleagues" :key="one.id" class="share">
        <Checkbox
          :model-value="share.with_ids ?? []"
          :value="one.id"
          @update:model-value="(ids: string[]) => choose(ids)"
        />
        {{ one.name }}
      </label>
      <Button v-if="share.with_ids" class="word" @click="put(true)">With all of them</Button>
    </fieldset>
  </template>
  <p v-else-if="share" class="quiet">You are in no school here; with an invitation of its head you join one.</p>
</template>

<style scoped src="./panel.css"></style>
<style scoped>
.share {
  display: flex;
  gap: 10px;
  align-items: center;
}
fieldset {
  border: 0;
  margin: 0;
  padding: 8px 0 0;
  display: grid;
  gap: 4px;
  justify-items: start;
  max-height: 14rem;
  overflow-y: auto;
}
legend {
  padding: 0;
  color: var(--ink-quiet);
}
.quiet {
  color: var(--ink-quiet);
}
.refusal {
  color: var(--role-wrong);
}
</style>
