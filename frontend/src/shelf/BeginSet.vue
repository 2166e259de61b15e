<script setup lang="ts">
import { useStorage } from '@vueuse/core'
import Button from 'primevue/button'
import InputNumber from 'primevue/inputnumber'
import InputText from 'primevue/inputtext'
import Select from 'primevue/select'
import SelectButton from 'primevue/selectbutton'
import { computed, defineAsyncComponent, onMounted, ref } from 'vue'

import { ask, client, type Schemas } from '../api/client'
import ChooseFile from '../parts/ChooseFile.vue'
import limits from '../parts/limits.json'
import RungSelect from '../parts/RungSelect.vue'
import { useBegin } from './useBegin'

const PastedLines = defineAsyncComponent(() => import('../parts/PastedLines.vue'))

type Start = 'standard' | 'rungs' | 'pasted' | 'empty'
const STARTS: { code: Start; name: string }[] = [
  { code: 'standard', name: 'from a standard' },
  { code: 'rungs', name: 'from a rung to a rung' },
  { code: 'pasted', name: 'from pasted lines' },
  { code: 'empty', name: 'empty' },
]
const start = useStorage<Start>('keen-slate-start', 'standard')
const title = ref('')
const standard = ref<string | null>(null)
const first = ref<string | null>(null)
const last = ref<string | null>(null)
const problems = ref(8)
const lines = ref<Schemas['BroughtLine'][]>([])
const choices = ref<Schemas['StartsOut'] | null>(null)
const { busy, refusal, empty, bring, start: startWith } = useBegin()

const good = computed(() => lines.value.filter((line) => line.verdict === 'read').map((line) => line.text))
const groups = computed(() => {
  const found = new Map<string, Schemas['StandardStart'][]>()
  for (const one of choices.value?.standards ?? []) found.set(one.group, [...(found.get(one.group) ?? []), one])
  return [...found].map(([name, items]) => ({ name, items }))
})
const ready = computed(
  () =>
    ({
      standard: !!standard.value,
      rungs: !!first.value && !!last.value,
      pasted: good.value.length > 0,
      empty: !!title.value.trim(),
    })[start.value],
)
const word = computed(() =>
  start.value === 'pasted' && good.value.length ? `Begin with ${good.value.length}` : 'Begin',
)
const judge = (text: string, signal: AbortSignal) => client.POST('/api/starts/judge', { body: { text }, signal })
const named = (one: Schemas['StandardStart']) => `${one.words} ${one.code}`

async function begin(): Promise<void> {
  if (!ready.value || busy.value) return
  const called = title.value.trim() || null
  if (start.value === 'empty') await empty(title.value)
  else if (start.value === 'standard') await startWith({ title: called, standard: standard.value })
  else if (start.value === 'pasted') await startWith({ title: called, problems: good.value })
  else
    await startWith({
      title: called,
      between: { first: first.value ?? '', last: last.value ?? '', problems: problems.value },
    })
}

onMounted(async () => {
  const answer = await ask(client.GET('/api/starts'))
  if (answer.ok) choices.value = answer.data
})
</script>

<template>
  <form class="begin on-paper" aria-labelledby="begin-heading" @submit.prevent="begin">
    <div class="ways">
      <h2 id="begin-heading">A new set</h2>
      <SelectButton
        v-model="start"
        :options="STARTS"
        option-label="name"
        option-value="code"
        :allow-empty="false"
        aria-label="How it begins"
      />
    </div>
    <div v-if="start === 'standard'" class="ask">
      <Select
        v-model="standard"
        class="wide"
        :options="groups"
        :option-label="named"
        option-value="code"
        option-group-label="name"
        option-group-children="items"
        filter
        :filter-fields="['words', 'code', 'group']"
        filter-placeholder="a word, a code, a year"
        placeholder="Which standard?"
        aria-label="Standard"
        scroll-height="22rem"
        auto-filter-focus
      >
        <template #option="{ option }">
          <span class="option"
            >{{ option.words }} <small>{{ option.code }}</small></span
          >
        </template>
      </Select>
      <span class="quiet">Eight problems that climb.</span>
    </div>
    <div v-else-if="start === 'rungs'" class="ask">
      <RungSelect
        v-model="first"
        class="rung"
        :rungs="choices?.rungs ?? []"
        label="From the rung"
        placeholder="From which rung?"
      />
      <RungSelect
        v-model="last"
        class="rung"
        :rungs="choices?.rungs ?? []"
        label="to the rung"
        placeholder="to which rung?"
      />
      <label class="many"
        ><InputNumber v-model="problems" :min="1" :max="limits.examples" show-buttons aria-label="Number of problems" />
        problems</label
      >
    </div>
    <PastedLines v-else-if="start === 'pasted'" id="pasted" v-model:lines="lines" :judge="judge" />
    <p v-if="refusal" class="refusal" role="alert">{{ refusal.message }} {{ refusal.hint }}</p>
    <div class="ask">
      <InputText
        id="new-title"
        v-model="title"
        :maxlength="limits.title"
        autocomplete="off"
        :aria-label="start === 'empty' ? 'What is it about?' : 'Its title, if you like'"
        :placeholder="start === 'empty' ? 'What is it about?' : 'Its title, if you like'"
      />
      <Button type="submit" :label="word" :disabled="!ready || busy" :loading="busy" />
      <ChooseFile
        class="file"
        label="or bring one in from a file"
        accept=".json,application/json"
        :hint="`A set of ${limits.examples} examples takes less than 100 kB.`"
        @file="bring"
        @refused="refusal = $event"
      />
    </div>
  </form>
</template>

<style scoped>
.begin {
  background: var(--paper);
  color: var(--ink);
  border-radius: 2px;
  padding: 14px 24px 16px;
  margin-bottom: 20px;
  display: grid;
  gap: 10px;
}
.ways,
.ask {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 14px;
  align-items: center;
}
h2 {
  font-size: 1.15rem;
  padding-right: 8px;
}
.wide {
  width: min(34rem, 100%);
}
.rung {
  width: min(22rem, 100%);
}
.option {
  white-space: normal;
}
small {
  opacity: 0.75;
  padding-left: 0.5em;
}
.many :deep(input) {
  width: 4em;
}
#new-title {
  width: min(24rem, 100%);
}
.quiet {
  color: var(--ink-quiet);
}
.refusal {
  color: var(--role-wrong);
}
</style>
