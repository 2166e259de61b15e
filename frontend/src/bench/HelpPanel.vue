<script setup lang="ts">
import Button from 'primevue/button'
import Dialog from 'primevue/dialog'
import InputText from 'primevue/inputtext'
import { computed, ref, watch } from 'vue'

import { ask, client, type Entry } from '../api/client'
import MathLine from '../parts/MathLine.vue'
import { useTold } from '../parts/useTold'
import { useBench } from '../stores/bench'
import { PLACES } from './guide'
import { KEYS, TYPED } from './help'

const visible = defineModel<boolean>('visible', { required: true })
const emit = defineEmits<{ walk: [] }>()
const bench = useBench()
const tell = useTold()
const word = ref('')
const entries = ref<Entry[]>([])

const wanted = computed(() => word.value.trim().toLowerCase())
const has = (...texts: string[]) => texts.some((text) => text.toLowerCase().includes(wanted.value))
const keys = computed(() => KEYS.filter(([key, does]) => has(key, does)))
const typed = computed(() => TYPED.filter((one) => has(one.name, one.said, one.example ?? '')))
const wrong = computed(() => (wanted.value ? entries.value.filter((one) => has(one.name, one.reason, one.family)) : []))
const places = computed(() => PLACES.filter((one) => has(one.name, one.text)))
const nothing = computed(() => [keys, typed, wrong, places].every((found) => !found.value.length))

watch(
  visible,
  async (open) => {
    if (!open || entries.value.length) return
    const answer = await ask(client.GET('/api/misconceptions'))
    if (answer.ok) entries.value = answer.data.entries
  },
  { immediate: true },
)

async function put(problem: string): Promise<void> {
  const refused = await bench.add(problem)
  tell(
    refused ? `${refused.message} ${refused.hint}` : `${problem} is on the ladder.`,
    refused ? undefined : bench.undo,
  )
}

function walk(): void {
  visible.value = false
  emit('walk')
}
</script>

<template>
  <Dialog
    v-model:visible="visible"
    modal
    header="Help"
    dismissable-mask
    :close-button-props="{ 'aria-label': 'Close the help' }"
    class="help"
  >
    <div class="find">
      <InputText
        v-model="word"
        type="search"
        autofocus
        autocomplete="off"
        aria-label="Find in the help"
        placeholder="Find: a place, a key, how to type it, a wrong answer"
      />
      <Button class="word" @click="walk">Walk me over the Bench</Button>
    </div>
    <p v-if="nothing" role="status">Nothing here has this word.</p>
    <section v-if="typed.length">
      <h3>How to type it</h3>
      <div v-for="one in typed" :key="one.name" class="line">
        <strong>{{ one.name }}</strong>
        <span
          >{{ one.said }} <code v-if="one.example">{{ one.example }}</code></span
        >
        <Button v-if="one.example && bench.set" class="word" @click="put(one.example)">Put it on the ladder</Button>
      </div>
    </section>
    <section v-if="keys.length">
      <h3>Keys</h3>
      <div v-for="[key, does] in keys" :key="key" class="line">
        <strong>{{ key }}</strong> <span>{{ does }}</span>
      </div>
    </section>
    <section v-if="places.length">
      <h3>The guide</h3>
      <details v-for="one in places" :key="one.name" :open="wanted.length > 1 && places.length === 1">
        <summary>{{ one.name }}</summary>
        <!-- eslint-disable-next-line vue/no-v-html -- our own guide, from docs/ -->
        <div class="told" v-html="one.html" />
      </details>
    </section>
    <section v-if="wrong.length">
      <h3>What a wrong answer means</h3>
      <div v-for="one in wrong" :key="one.code" class="line">
        <strong>{{ one.name }}</strong>
        <span
          ><MathLine :glyphs="one.problem_glyphs" /> = <MathLine :glyphs="one.answer_glyphs" />. {{ one.reason }}
          <em>{{ one.question }}</em></span
        >
        <Button v-if="bench.set" class="word" @click="put(one.problem)">Put it on the ladder</Button>
      </div>
    </section>
    <p v-else-if="!wanted" class="quiet">
      Type a word from a wrong answer (“tops”, “regroup”, “point”) to see what it means.
    </p>
  </Dialog>
</template>

<style scoped>
.find {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 16px;
  align-items: center;
  padding-bottom: 10px;
}
.find :deep(input) {
  flex: 1;
  min-width: 14rem;
}
.word {
  text-decoration-color: currentColor;
}
h3 {
  font-size: 1rem;
  padding: 8px 0 2px;
}
.line {
  display: grid;
  grid-template-columns: 11rem minmax(0, 1fr) auto;
  gap: 4px 14px;
  padding: 4px 0;
  border-top: 1px solid var(--hair);
  align-items: start;
}
.line strong {
  font-weight: 700;
}
details {
  border-top: 1px solid var(--hair);
  padding: 4px 0;
}
.told {
  display: grid;
  gap: 8px;
  padding: 6px 0 8px 1.4em;
}
.told :deep(td),
.told :deep(th) {
  text-align: left;
  vertical-align: top;
  padding: 2px 16px 2px 0;
}
code,
.told :deep(code) {
  font: inherit;
  font-weight: 700;
}
.quiet {
  color: var(--ink-quiet);
  padding-top: 10px;
}
@media (max-width: 640px) {
  .line {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
<style>
.help.p-dialog {
  width: min(52rem, 94vw);
}
</style>
