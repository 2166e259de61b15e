<script setup lang="ts">
import InputText from 'primevue/inputtext'
import { ref, watch } from 'vue'

const props = defineProps<{
  id: string
  /** What is kept, "" where nothing is. */
  text: string
  placeholder: string
  maxlength: number
}>()
const emit = defineEmits<{ keep: [text: string] }>()

const typed = ref('')
// What was kept from here comes back when it is stored; what has been typed since then must not be lost by it.
let sent: string | null = null
watch(
  () => props.text,
  (text) => {
    if (text !== sent) typed.value = text
    sent = null
  },
  { immediate: true },
)

function keep(): void {
  const text = typed.value.trim()
  if (text === props.text) return
  sent = text
  emit('keep', text)
}
</script>

<template>
  <InputText
    :id="id"
    v-model="typed"
    :placeholder="placeholder"
    :maxlength="maxlength"
    autocomplete="off"
    @change="keep"
  />
</template>
