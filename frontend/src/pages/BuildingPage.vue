<script setup lang="ts">
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { onMounted, ref, watch } from 'vue'

import { ask, type Built, client, type Level, type Refusal } from '../api/client'
import { useLatest } from '../api/useLatest'
import MathLine from '../parts/MathLine.vue'
import PageHead from '../parts/PageHead.vue'

/** *given* is what comes back from the wall. */
const props = defineProps<{ given: { numbers: string; wanted: string } }>()
const levels = ref<Level[]>([])
const numbers = ref(props.given.numbers)
const wanted = ref(props.given.wanted)
const built = ref<Built | null>(null)
const shown = ref(false)
const refusal = ref<Refusal | null>(null)
const { latest, drop } = useLatest()
// Who types does not want what was asked for before any more.
watch([numbers, wanted], drop, { flush: 'sync' })

async function build(): Promise<void> {
  if (!numbers.value.trim() || !wanted.value.trim()) return
  const body = { numbers: numbers.value, wanted: wanted.value }
  const answer = await latest((signal) => client.POST('/api/building', { body, signal }))
  if (answer) take(answer.ok ? answer.data : null, answer.ok ? null : answer.refusal)
}

/**
 * Have one made. The *first*, when the page opens, gives way to what was typed meanwhile, and never writes into a
 * field.
 */
async function propose(level: string, first = false): Promise<void> {
  const seed = Math.floor(Math.random() * 2 ** 31)
  const answer = await latest((signal) => client.POST('/api/building/new', { body: { level, seed }, signal }))
  if (!answer) return
  take(answer.ok ? answer.data : null, answer.ok ? null : answer.refusal)
  if (!answer.ok || first) return
  numbers.value = answer.data.numbers
  wanted.value = answer.data.wanted
}

function take(found: Built | null, refused: Refusal | null): void {
  built.value = found
  refusal.value = refused
  shown.value = false
}

onMounted(async () => {
  document.title = 'Number building · Keen Slate'
  void build() // what came back from the wall; what is typed from now on asks for itself
  const answer = await ask(client.GET('/api/building'))
  if (answer.ok) levels.value = answer.data.levels
  if (!numbers.value && !wanted.value) await propose('wholes', true)
})
</script>

<template>
  <main class="building">
    <PageHead title="Number building" />
    <section class="sheet on-paper" aria-live="polite">
      <template v-if="built">
        <p class="task">
          Build <strong><MathLine :glyphs="built.wanted_glyphs" /></strong> with + − × ÷ from
        </p>
        <p class="numbers">
          <span v-for="(glyphs, i) in built.number_glyphs" :key="i" class="number"><MathLine :glyphs="glyphs" /></span>
        </p>
        <p class="rule">Each number at most once.</p>
        <p class="acts">
          <Button class="word" :aria-expanded="shown" @click="shown = !shown">
            {{ shown ? 'Hide the ways' : 'Show the ways' }}
          </Button>
          <RouterLink
            class="word"
            :to="{ name: 'building-wall', query: { numbers: built.numbers, wanted: built.wanted } }"
          >
            On the wall
          </RouterLink>
        </p>
        <template v-if="shown">
          <p v-if="built.ended_early" class="rule">There are more ways than could be tried.</p>
          <p v-if="!built.exact" class="rule">
            It cannot be built. The nearest is <MathLine :glyphs="built.nearest_glyphs" />.
          </p>
          <ol>
            <li v-for="way in built.ways" :key="way.text">
              <MathLine :glyphs="way.glyphs" />
              <span v-for="(line, i) in way.lines" :key="i" class="line"> = <MathLine :glyphs="line" /></span>
            </li>
          </ol>
        </template>
      </template>
      <p v-if="refusal" class="refusal" role="alert">{{ refusal.message }} {{ refusal.hint }}</p>
    </section>
    <section class="make">
      <h2>Make one</h2>
      <p class="levels">
        <Button v-for="level in levels" :key="level.code" class="word" @click="propose(level.code)">
          {{ level.name }}
        </Button>
      </p>
      <h2>Or type your own</h2>
      <form @submit.prevent="build">
        <label>Numbers <InputText v-model="numbers" autocomplete="off" placeholder="3, 1/2, 0.25, 5" /></label>
        <label>to build <InputText v-model="wanted" class="short" autocomplete="off" placeholder="7" /></label>
        <Button class="word" type="submit">Find the ways</Button>
      </form>
    </section>
  </main>
</template>

<style scoped src="../building/building.css"></style>
