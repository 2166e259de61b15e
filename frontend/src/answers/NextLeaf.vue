<script setup lang="ts">
import { onMounted, ref } from 'vue'
import { useRouter } from 'vue-router'

import { ask, client, type Group, type Next, type Refusal } from '../api/client'
import { useLatest } from '../api/useLatest'
import { dayOf } from './cells'
import GroupCard from './GroupCard.vue'
import type { SittingDesk } from './useSitting'

const props = defineProps<{ desk: SittingDesk }>()
const router = useRouter()
const next = ref<Next | null>(null)
const refusal = ref<Refusal | null>(null)
const busy = ref(false)
const { latest } = useLatest()
const params = { path: { sitting_id: props.desk.sitting.value?.id ?? '' } }

async function load(): Promise<void> {
  const answer = await latest((signal) => client.GET('/api/sittings/{sitting_id}/next', { params, signal }))
  if (!answer) return
  if (answer.ok) next.value = answer.data
  refusal.value = answer.ok ? null : answer.refusal
}

/** A pupil into another group, or back to where her answers put her. */
async function move(pupil: string, codes: string[] | null): Promise<void> {
  busy.value = true
  const body = { moves: { [pupil]: codes } }
  const answer = await latest((signal) => client.PUT('/api/sittings/{sitting_id}/groups', { params, body, signal }))
  if (!answer) return
  busy.value = false
  if (answer.ok) next.value = answer.data
  refusal.value = answer.ok ? null : answer.refusal
}

async function make(group: Group): Promise<void> {
  busy.value = true
  const problems = [...group.ladder, ...(group.check ? [group.check] : [])]
  const body = {
    codes: group.codes,
    pupils: group.pupils.length,
    problems: problems.map((one) => one.text),
    targets: problems.map((one) => one.target),
  }
  const answer = await ask(client.POST('/api/sittings/{sitting_id}/sets', { params, body }))
  busy.value = false
  if (answer.ok) await router.push({ name: 'bench', params: { setId: answer.data.id } })
  else refusal.value = answer.refusal
}

onMounted(load)
</script>

<template>
  <div class="next" :aria-busy="busy || !next">
    <p v-if="refusal" class="trouble" role="alert">{{ refusal.message }} {{ refusal.hint }}</p>
    <template v-if="next">
      <GroupCard
        v-for="group in next.groups"
        :key="group.codes.join() || 'ready'"
        :group="group"
        :groups="next.groups"
        :returns="next.returns.map(dayOf)"
        :busy="busy"
        @move="move"
        @make="make(group)"
      />
      <section v-if="next.unclear.length" class="card on-paper">
        <h2>
          To be asked <span>· {{ next.unclear.length }}</span>
        </h2>
        <p>Many wrong answers that nothing known here explains. Ask for one of them: “Show me how you did this one.”</p>
        <p class="names">{{ next.unclear.map((one) => one.alias).join(', ') }}</p>
      </section>
      <p v-if="next.absent.length" class="absent">
        Without an answer: {{ next.absent.map((one) => one.alias).join(', ') }}.
      </p>
      <p v-if="!next.groups.length && !next.unclear.length" class="absent">
        No groups yet: nothing has been entered. Type the answers under <em>What they wrote</em>.
      </p>
    </template>
    <p v-else-if="!refusal" class="absent">Groups are being made…</p>
  </div>
</template>

<style scoped src="./card.css"></style>
<style scoped>
.next {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(430px, 100%), 1fr));
  gap: 12px;
  align-items: stretch;
}
.absent,
.trouble {
  grid-column: 1 / -1;
  color: var(--on-slate-quiet);
}
.trouble {
  background: var(--paper);
  color: var(--role-wrong);
  padding: 8px 16px;
  border-radius: 3px;
}
</style>
