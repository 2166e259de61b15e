<script setup lang="ts">
import { watchDebounced } from '@vueuse/core'
import Button from 'primevue/button'
import { computed, onBeforeUnmount, onMounted, reactive, ref, watch } from 'vue'

import { ask, client, type Entry, type Refusal } from '../api/client'
import { useNewest } from '../api/useNewest'
import HandoutForm from '../handout/HandoutForm.vue'
import { AS_IT_COMES, PAGE_KINDS } from '../handout/options'
import PageHead from '../parts/PageHead.vue'

const props = defineProps<{ setId: string }>()

const FIRST_PAGES = 8
const ALL_PAGES = 400
const options = reactive({ ...AS_IT_COMES })
const title = ref('')
const entries = ref<Entry[]>([])
const pages = ref<string[]>([])
const count = ref(0)
const leftOut = ref<number[]>([])
const most = ref(FIRST_PAGES)
const refusal = ref<Refusal | null>(null)
const address = computed(() => {
  const query = new URLSearchParams(Object.entries(options).map(([name, value]) => [name, String(value)]))
  return `/api/sets/${props.setId}/handout.pdf?${query}`
})
const saidOfPages = computed(() => {
  if (!count.value) return pages.value.length || refusal.value ? '' : 'Setting the pages…'
  return `${count.value} ${count.value === 1 ? 'page' : 'pages'}`
})
const saidOfLeftOut = computed(() => {
  if (!leftOut.value.length) return ''
  const kind = PAGE_KINDS.find((one) => one.code === options.kind)
  const list = leftOut.value.join(', ')
  if (options.kind === 'slip') return `A slip takes four. Not on it: ${list}; choose others under “Which examples”.`
  return `Not on these pages: ${list}. ${leftOut.value.length === 1 ? 'It has' : 'They have'} nothing for “${kind?.name}”.`
})

const { renew } = useNewest(
  () => {
    const params = { path: { set_id: props.setId }, query: { ...options, most: most.value } }
    return client.GET('/api/sets/{set_id}/handout', { params })
  },
  (answer) => {
    refusal.value = answer.ok ? null : answer.refusal
    if (!answer.ok) return
    count.value = answer.data.count
    leftOut.value = answer.data.left_out
    show(answer.data.pages)
  },
)

function show(found: string[]): void {
  pages.value.forEach(URL.revokeObjectURL)
  pages.value = found.map((page) => URL.createObjectURL(new Blob([page], { type: 'image/svg+xml' })))
}

// What is typed is waited for; what is chosen shows at once.
watchDebounced([() => options.only, () => options.class_name, () => options.date, () => options.minutes], renew, {
  debounce: 250,
})
watch(
  () => ({ ...options, only: '', class_name: '', date: '', minutes: 0 }),
  (now, before) => {
    if (JSON.stringify(now) !== JSON.stringify(before)) void renew()
  },
)
watch(most, renew)

onMounted(async () => {
  document.title = 'Handout · Keen Slate'
  const answer = await ask(client.GET('/api/sets/{set_id}', { params: { path: { set_id: props.setId } } }))
  if (!answer.ok) return void (refusal.value = answer.refusal)
  title.value = answer.data.title
  void renew()
  const found = await ask(client.GET('/api/misconceptions'))
  if (found.ok) entries.value = found.data.entries
})
onBeforeUnmount(() => pages.value.forEach(URL.revokeObjectURL))
</script>

<template>
  <main class="handout">
    <PageHead title="Handout" :back="{ to: { name: 'bench', params: { setId } }, name: 'Bench' }">
      <p class="of">{{ title }}</p>
      <p class="quiet" role="status">{{ saidOfPages }}</p>
      <Button as="a" class="do" :href="address" target="_blank" rel="noopener" label="Open the PDF" />
    </PageHead>
    <div class="desk">
      <HandoutForm v-model="options" class="form" :entries="entries" />
      <section class="pages" aria-label="The pages" tabindex="0">
        <p v-if="refusal" class="refusal" role="alert">{{ refusal.message }} {{ refusal.hint }}</p>
        <p v-if="saidOfLeftOut" class="left">{{ saidOfLeftOut }}</p>
        <p v-if="count === 0 && pages.length === 0 && leftOut.length" class="left">There is no page to print.</p>
        <img
          v-for="(page, i) in pages"
          :key="page"
          :src="page"
          :alt="`Page ${i + 1} of ${count}; the PDF has its text`"
        />
        <p v-if="count > pages.length" class="more">
          <Button variant="outlined" :label="`Show all ${count} pages`" @click="most = ALL_PAGES" />
        </p>
      </section>
    </div>
  </main>
</template>

<style scoped src="../handout/handout.css"></style>
