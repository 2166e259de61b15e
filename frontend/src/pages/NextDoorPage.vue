<script setup lang="ts">
import { useIntervalFn } from '@vueuse/core'
import { onMounted, ref, shallowRef, watch } from 'vue'

import { ask, client, type Refusal, type Schemas } from '../api/client'
import { useLatest } from '../api/useLatest'
import BesideSteps from '../colleagues/BesideSteps.vue'
import MathLine from '../parts/MathLine.vue'
import PageHead from '../parts/PageHead.vue'

const props = defineProps<{ teacherId: string; setId: string; exampleId?: string }>()
const STILL_THERE = 4000 // milliseconds between two looks whether it is shared
const set = shallowRef<Schemas['SharedSetOut'] | null>(null)
const chosen = ref<string | null>(null)
const shown = shallowRef<Schemas['NextDoorOut'] | null>(null)
const refusal = ref<Refusal | null>(null)
const { latest } = useLatest()

/** Ask for the example that the address names, or for the first one. */
async function look(): Promise<void> {
  const id = props.exampleId ?? set.value?.examples[0]?.id
  chosen.value = id ?? null
  if (!id) return
  const params = { path: { teacher_id: props.teacherId, set_id: props.setId, example_id: id } }
  const answer = await latest((signal) =>
    client.GET('/api/colleagues/{teacher_id}/sets/{set_id}/examples/{example_id}/beside', { params, signal }),
  )
  if (!answer) return
  refusal.value = answer.ok ? null : answer.refusal
  shown.value = answer.ok ? answer.data : null
}

async function load(): Promise<void> {
  const params = { path: { teacher_id: props.teacherId, set_id: props.setId } }
  const answer = await ask(client.GET('/api/colleagues/{teacher_id}/sets/{set_id}', { params }))
  refusal.value = answer.ok ? null : answer.refusal
  if (!answer.ok) return
  set.value = answer.data
  await look()
}

/** An open page closes soon after its set was withdrawn. */
const { pause } = useIntervalFn(async () => {
  const answer = await fetch(`/shared/${props.teacherId}/${props.setId}`, { method: 'HEAD' }).catch(() => null)
  if (answer?.status !== 404) return
  pause()
  set.value = null
  refusal.value = { message: 'This set is not shared with you any more.', hint: '', position: 0, length: 0 }
}, STILL_THERE)
watch(() => props.exampleId, look)
onMounted(() => {
  document.title = 'The class next door · Keen Slate'
  void load()
})
</script>

<template>
  <main class="door">
    <PageHead title="The class next door" :back="{ to: { name: 'colleagues' }, name: 'From colleagues' }" />
    <p v-if="refusal" class="trouble" role="alert">{{ refusal.message }} {{ refusal.hint }}</p>
    <div v-if="set" class="room">
      <nav aria-label="Examples">
        <ol>
          <li v-for="(example, i) in set.examples" :key="example.id">
            <RouterLink
              class="rung"
              :to="{ name: 'next-door', params: { teacherId, setId, exampleId: example.id } }"
              :aria-current="example.id === chosen ? 'true' : undefined"
              replace
            >
              <span class="number">{{ i + 1 }}</span>
              <MathLine :glyphs="example.glyphs" :spoken="example.spoken" />
            </RouterLink>
          </li>
        </ol>
      </nav>
      <section class="sheet on-paper" aria-live="polite">
        <h2>{{ set.title }}</h2>
        <p v-if="!set.examples.length">There is no example in this set yet.</p>
        <p v-if="shown?.unreadable">{{ set.teacher }} cannot work it either as it stands: {{ shown.unreadable }}</p>
        <template v-if="shown?.beside">
          <ul class="said">
            <li v-for="sentence in shown.beside.said" :key="sentence">{{ sentence }}</li>
          </ul>
          <BesideSteps :beside="shown.beside" :teacher="set.teacher" />
        </template>
      </section>
    </div>
  </main>
</template>

<style scoped>
.door {
  padding: 0 24px 32px;
}
.trouble {
  padding-bottom: 12px;
}
.room {
  display: grid;
  grid-template-columns: minmax(190px, 17rem) minmax(0, 1fr);
  gap: 16px;
  align-items: start;
}
/* The rungs of the set between its rails, as on the Bench. */
ol {
  display: grid;
  gap: 10px;
  padding: 12px 0 16px;
  background:
    linear-gradient(90deg, transparent 10px, var(--rail) 10px 13px, transparent 13px),
    linear-gradient(270deg, transparent 10px, var(--rail) 10px 13px, transparent 13px);
}
.rung {
  display: grid;
  grid-template-columns: 1.6rem minmax(0, 1fr);
  align-items: center;
  min-height: 48px;
  padding: 4px 10px;
  border-radius: 2px;
  color: var(--ink);
  background: var(--paper);
  text-decoration: none;
  font-size: 1.08rem;
}
.rung[aria-current] {
  outline: 3px solid var(--on-slate);
  outline-offset: -1px;
}
.number {
  color: var(--ink-quiet);
  font-size: 0.88rem;
}
.sheet {
  background: var(--paper);
  color: var(--ink);
  padding: 20px 28px 28px;
  border-radius: 2px;
  min-height: 60vh;
}
h2 {
  font-size: 1.25rem;
}
.said {
  display: grid;
  gap: 4px;
  padding: 10px 0 18px;
  max-width: 60rem;
  font-size: 1.05rem;
}
@media (max-width: 760px) {
  .door {
    padding: 0 8px 24px;
  }
  .room {
    grid-template-columns: minmax(0, 1fr);
  }
  .sheet {
    padding: 14px 12px;
  }
}
</style>
