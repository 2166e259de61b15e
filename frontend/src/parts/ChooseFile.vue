<script setup lang="ts">
import FileUpload from 'primevue/fileupload'
import { ref } from 'vue'

import type { Refusal } from '../api/client'
import { tooLarge } from './chosenFile'
import limits from './limits.json'

/** One file is chosen; it is handed on at once, or refused where it is larger than is read. */
const props = withDefaults(
  defineProps<{
    label: string
    /** Kinds of file, as a browser takes them. */
    accept: string
    /** What helps where it is too large. */
    hint: string
    /** Bytes. */
    largest?: number
  }>(),
  { largest: limits.file },
)
const emit = defineEmits<{ file: [file: File]; refused: [refusal: Refusal] }>()
const field = ref<{ clear: () => void } | null>(null)

function chosen(event: { files: File | File[] }): void {
  const file = Array.isArray(event.files) ? event.files[0] : event.files
  field.value?.clear()
  if (!file) return
  if (file.size > props.largest) emit('refused', tooLarge(props.largest, props.hint))
  else emit('file', file)
}
</script>

<template>
  <FileUpload
    ref="field"
    mode="basic"
    custom-upload
    auto
    :accept="accept"
    :choose-label="label"
    invalid-file-type-message="{0} is a file of another kind than is read here: {1}."
    :choose-button-props="{ variant: 'text', class: 'word file' }"
    :pt="{ filelabel: { class: 'none' }, input: { 'aria-label': label } }"
    @uploader="chosen"
  >
    <template #chooseicon><span /></template>
  </FileUpload>
</template>

<style scoped>
:deep(.none) {
  display: none;
}
:deep(.file) {
  text-decoration-color: currentColor;
}
</style>
