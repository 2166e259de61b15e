<script setup lang="ts">
import Button from 'primevue/button'
import { useSessionStorage } from '@vueuse/core'
import InputText from 'primevue/inputtext'
import { computed, ref, watch } from 'vue'

import type { Glyph, Working } from '../api/client'
import MathLine from '../parts/MathLine.vue'
import { useBench } from '../stores/bench'
import { usePaper } from '../stores/paper'
import StoryDesk from '../story/StoryDesk.vue'
import { usePreview } from './usePreview'

const props = defineProps<{ setId: string }>()

/** Words that tell something, and are no label: a larger field opens for them. */
const WORDS = /^\s*[\p{L}'’]+[ ,]+\p{L}{2,}|\p{L}{2,}[ ,]+\p{L}{2,}[ ,]+\p{L}|\p{L}{2,}.*\?/u
const bench = useBench()
const field = ref<{ $el: HTMLInputElement } | null>(null)
const key = `draft ${props.setId}`
/** What is typed and not yet added survives a reload. */
const text = useSessionStorage(key, '')
const busy = ref(false)
const telling = ref(false)
const paper = usePaper()
const { preview, refusal, clear } = usePreview(
  () => (WORDS.test(text.value) ? '' : text.value),
  () => ({ ...bench.set?.house, ...bench.set?.ways }),
)

watch(
  text,
  (now, before) => {
    if (!telling.value && WORDS.test(now) && !WORDS.test(before ?? '')) telling.value = true
  },
  { immediate: true },
)

// What can be read so far stands on the paper in pencil, and stays there while the next number is typed.
watch(
  () => [preview.value, text.value.trim()] as const,
  ([read, typed]) => {
    if (read) paper.pencil = read.working as Working
    else if (!typed) paper.pencil = null
  },
)

const glyphs = computed(() => preview.value?.glyphs as Glyph[] | undefined)
const pieces = computed(() => {
  const { position = 0, length = 0 } = refusal.value ?? {}
  return [
    text.value.slice(0, position),
    text.value.slice(position, position + length),
    text.value.slice(position + length),
  ]
})

async function add(): Promise<void> {
  if (busy.value || !text.value.trim()) return
  if (WORDS.test(text.value)) return void (telling.value = true)
  busy.value = true
  const refused = await bench.add(text.value)
  busy.value = false
  refusal.value = refused
  if (!refused && bench.saving === 'saved') {
    dropText()
  }
}

function dropText(): void {
  text.value = ''
  clear()
}

function focus(): void {
  field.value?.$el.focus()
}
defineExpose({ focus })
</script>

<template>
  <form class="entry" @submit.prevent="add">
    <div class="seen" aria-live="polite">
      <template v-if="refusal && text.trim()">
        <p v-if="refusal.length && refusal.length < text.length" class="place" aria-hidden="true">
          {{ pieces[0] }}<mark>{{ pieces[1] }}</mark
          >{{ pieces[2] }}
        </p>
        <p class="refusal">{{ refusal.message }} {{ refusal.hint }}</p>
      </template>
      <template v-else-if="glyphs">
        <p class="typeset"><MathLine :glyphs="glyphs" /></p>
      </template>
    </div>
    <label class="sr-only" for="entry">The next problem</label>
    <InputText
      id="entry"
      ref="field"
      v-model="text"
      class="field"
      autocomplete="off"
      spellcheck="false"
      :invalid="!!refusal"
      placeholder="Type the next problem"
      aria-describedby="entry-hint"
    />
    <p id="entry-hint" class="hint">
      like 5 1/6 - 2 3/8, then Enter; or
      <Button class="word" @click="telling = true">a story</Button>
    </p>
    <StoryDesk v-model:visible="telling" :typed="text" @added="dropText" @left="text = $event" />
  </form>
</template>

<style scoped>
.entry {
  padding: 0 20px 6px 18px;
}
.seen {
  font-size: 0.88rem;
  line-height: 1.35;
  padding-bottom: 6px;
  max-height: 34vh;
  overflow-y: auto;
  overflow-wrap: anywhere;
}
.typeset {
  font-size: 1.25rem;
}
/* The inks are made for paper; on the slate they would be too dark to read. */
.typeset :deep([data-role]) {
  color: inherit;
}
.place {
  font-size: 1.05rem;
  white-space: pre-wrap;
}
mark {
  background: none;
  color: inherit;
  text-decoration: underline wavy var(--on-slate-refused) 2px;
  text-underline-offset: 4px;
  white-space: pre;
}
.refusal {
  color: var(--on-slate-refused);
}
.field {
  width: 100%;
  font-size: 1.1rem;
}
.hint .word {
  padding: 0;
  text-decoration-color: currentColor;
}
.hint {
  font-size: 0.82rem;
  color: var(--on-slate-quiet);
  padding-top: 4px;
}
</style>
