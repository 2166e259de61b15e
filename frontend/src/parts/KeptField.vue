<script setup lang="ts">
import { ref, watch } from 'vue'

import limits from './limits.json'

defineOptions({ inheritAttrs: false })

/** A field whose text is saved when it is left. What is being typed is never replaced by what arrives meanwhile. */
const props = defineProps<{
  /** What is kept so far. */
  value: string | number
  /** Whether it has several lines. */
  long?: boolean
}>()
const emit = defineEmits<{ save: [value: string] }>()

const field = ref<HTMLInputElement | HTMLTextAreaElement | null>(null)
const draft = ref(String(props.value))

watch(
  () => props.value,
  (now) => {
    if (document.activeElement !== field.value) draft.value = String(now)
  },
)

function save(): void {
  if (draft.value !== String(props.value)) emit('save', draft.value)
}
</script>

<template>
  <textarea
    v-if="long"
    ref="field"
    v-model="draft"
    v-bind="$attrs"
    class="kept"
    :maxlength="limits.words"
    @change="save"
  />
  <input v-else ref="field" v-model="draft" v-bind="$attrs" class="kept" :maxlength="limits.words" @change="save" />
</template>

<style scoped>
.kept {
  font: inherit;
  color: var(--ink);
  background: #fff;
  border: 1px solid #8496a0;
  border-radius: 2px;
  padding: 2px 6px;
}
textarea {
  width: 100%;
  resize: vertical;
}
.kept:focus-visible {
  outline: 3px solid var(--focus-on-paper);
}
input[type='number'] {
  width: 4.2em;
}
</style>
