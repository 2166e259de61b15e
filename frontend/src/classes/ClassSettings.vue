<script setup lang="ts">
import Button from 'primevue/button'
import { computed, ref } from 'vue'

import { ask, client, type Refusal, type SchoolClass, type Schemas } from '../api/client'
import KeptField from '../parts/KeptField.vue'
import KeptNumber from '../parts/KeptNumber.vue'
import limits from '../parts/limits.json'
import { useAsk } from '../parts/useAsk'

const props = defineProps<{ found: SchoolClass }>()
const emit = defineEmits<{ changed: [found: SchoolClass]; again: []; gone: [] }>()
const refusal = ref<Refusal | null>(null)
const askFirst = useAsk()
const gone = computed(
  () =>
    `The class goes with its ${props.found.pupils.length} pupils, ${props.found.sittings.length} sittings and all ` +
    'that was written, for good.',
)
const params = { path: { class_id: props.found.id } }

async function change(body: Schemas['ClassChange']): Promise<void> {
  const answer = await ask(client.PATCH('/api/classes/{class_id}', { params, body }))
  refusal.value = answer.ok ? null : answer.refusal
  if (answer.ok) emit('changed', answer.data)
}

function days(typed: string): void {
  const returns = (typed.match(/\d+/g) ?? []).map(Number)
  void change({ returns })
}

async function remove(): Promise<void> {
  const answer = await ask(client.DELETE('/api/classes/{class_id}', { params }))
  if (answer.ok) emit('gone')
  else refusal.value = answer.refusal
}
</script>

<template>
  <section class="sheet on-paper" aria-labelledby="class-settings">
    <h2 id="class-settings">This class</h2>
    <p v-if="refusal" class="refusal" role="alert">{{ refusal.message }} {{ refusal.hint }}</p>
    <dl>
      <dt><label for="class-name">Name</label></dt>
      <dd>
        <KeptField id="class-name" :value="found.name" :maxlength="limits.title" @save="change({ name: $event })" />
      </dd>
      <dt><label for="class-returns">What was mastered comes back after so many days</label></dt>
      <dd><KeptField id="class-returns" :value="found.returns.join(', ')" maxlength="40" @save="days" /></dd>
      <dt>Forget sittings after so many months (0: never)</dt>
      <dd>
        <KeptNumber
          label="Forget sittings after so many months"
          :min="0"
          :max="60"
          :value="found.forget_months"
          @save="change({ forget_months: $event ?? 0 })"
        />
        <small v-if="found.forget_months">Older ones go within a day, for good.</small>
      </dd>
    </dl>
    <Button class="word remove" @click="askFirst($event, gone, 'Remove the class', remove)">Remove this class…</Button>
  </section>
</template>

<style scoped src="./class.css"></style>
<style scoped>
dl {
  display: grid;
  gap: 2px;
  padding-bottom: 14px;
}
dt {
  color: var(--ink-quiet);
  font-size: 0.92rem;
  padding-top: 6px;
}
small {
  display: block;
  color: var(--ink-quiet);
}
.refusal {
  color: var(--role-wrong);
}
.ask {
  display: grid;
  gap: 8px;
  justify-items: start;
}
.remove {
  padding-left: 0;
  text-decoration-color: currentColor;
}
</style>
