<script setup lang="ts">
import Button from 'primevue/button'
import Dialog from 'primevue/dialog'
import { computed, ref, watch } from 'vue'

import { ask, client, type Refusal, type Schemas } from '../api/client'
import MathLine from '../parts/MathLine.vue'
import { useBench } from '../stores/bench'

const visible = defineModel<boolean>('visible', { required: true })
const bench = useBench()
const climb = ref<Schemas['ClimbOut'] | null>(null)
const refusal = ref<Refusal | null>(null)

watch(
  visible,
  async (shown) => {
    if (!shown || !bench.set) return
    climb.value = null
    const answer = await ask(client.GET('/api/sets/{set_id}/climb', { params: { path: { set_id: bench.set.id } } }))
    if (answer.ok) climb.value = answer.data
    refusal.value = answer.ok ? null : answer.refusal
  },
  { immediate: true }, // it is loaded when it is first opened
)

const proposed = computed(() =>
  (climb.value?.order ?? []).flatMap((id) => bench.examples.filter((item) => item.id === id)),
)

async function take(): Promise<void> {
  visible.value = false
  if (climb.value) await bench.reorder(climb.value.order)
}
</script>

<template>
  <Dialog v-model:visible="visible" modal header="Sort into a climb" :closable="false" dismissable-mask>
    <p v-if="refusal" role="alert">{{ refusal.message }} {{ refusal.hint }}</p>
    <template v-if="climb">
      <p v-if="climb.moves.length">
        {{ climb.moves.length === 1 ? 'One example moves' : `${climb.moves.length} examples move` }}, no order climbs
        with fewer changes. Gaps that skip a rung may stay.
      </p>
      <p v-else>It climbs already; where a rung is skipped, only another problem helps.</p>
      <ol>
        <li v-for="item in proposed" :key="item.id" :data-moves="climb.moves.includes(item.id)">
          <span class="rung">{{ item.rung ?? '' }}</span> <MathLine :glyphs="item.glyphs" :spoken="item.spoken" />
          <span v-if="climb.moves.includes(item.id)" class="moves">moves</span>
        </li>
      </ol>
    </template>
    <div class="ways">
      <Button v-if="climb?.moves.length" label="Take this order" autofocus @click="take" />
      <Button label="Leave it as it is" variant="outlined" @click="visible = false" />
    </div>
  </Dialog>
</template>

<style scoped>
p {
  max-width: 26rem;
  padding-bottom: 0.8rem;
}
li {
  padding: 4px 0;
  font-size: 1.1rem;
  display: flex;
  gap: 10px;
  align-items: center;
}
.rung {
  font-size: 0.8rem;
  width: 2em;
  color: var(--ink-quiet);
}
.moves {
  font-size: 0.85rem;
  border: 1.5px solid var(--ink);
  border-radius: 3px;
  padding: 0 6px;
}
.ways {
  display: flex;
  gap: 0.8rem;
  padding-top: 1rem;
}
</style>
