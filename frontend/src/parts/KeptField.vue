<script setup lang="ts">
import InputText from 'primevue/inputtext'
import Textarea from 'primevue/textarea'
import { ref, watch } from 'vue'

import limits from './limits.json'

defineOptions({ inheritAttrs: false })

/** A field whose text is saved when it is left. What is being typed is never replaced by what arrives meanwhile. */
const props = defineProps<{
  /** What is kept so far. */
  value: string
  /** Whether it has several lines. */
  long?: boolean
}>()
const emit = defineEmits<{ save: [value: string] }>()

const draft = ref(props.value)
const inHand = ref(false)

watch(
  () => props.value,
  (now) => {
    if (!inHand.value) draft.value = now
  },
)

function save(): void {
  if (draft.value !== props.value) emit('save', draft.value)
}
</script>

<template>
  <component
    :is="long ? Textarea : InputText"
    v-model="draft"
    :maxlength="limits.words"
    v-bind="$attrs"
    :class="{ long }"
    @focus="inHand = true"
    @blur="inHand = false"
    @change="save"
  />
</template>

<style scoped>
.long {
  width: 100%;
}
</style>
