<script setup lang="ts">
import Button from 'primevue/button'
import ProgressBar from 'primevue/progressbar'
import { computed, onMounted } from 'vue'
import { useRouter } from 'vue-router'

import type { ToldStory } from '../api/client'
import { putOnLadder } from '../ladder/putOnLadder'
import PageHead from '../parts/PageHead.vue'
import MadeStories from '../story/MadeStories.vue'
import StoryWishForm from '../story/StoryWishForm.vue'
import { useMakeStories } from '../story/useMakeStories'

/** Stories made to order: rungs, situations, a scenario, and what is calculated. */
const props = defineProps<{ setId: string }>()
const router = useRouter()
const { choices, wish, scenarios, made, kept, refusal, busy, total, another, swap } = useMakeStories(props.setId)

/** Rungs and calculations in words. */
const names = computed(() =>
  Object.fromEntries(
    [...(choices.value?.rungs ?? []), ...(choices.value?.calculations ?? [])].map((one) => [one.code, one.name]),
  ),
)

async function take(stories: ToldStory[]): Promise<void> {
  const sources = stories.map((one) => one.story.source)
  refusal.value = await putOnLadder(props.setId, sources)
  if (!refusal.value) await router.push({ name: 'bench', params: { setId: props.setId } })
}

onMounted(() => (document.title = 'Stories to order · Keen Slate'))
</script>

<template>
  <main class="order">
    <PageHead title="Stories to order" :back="{ to: { name: 'bench', params: { setId } }, name: 'Bench' }">
      <RouterLink class="word" :to="{ name: 'scenarios' }">Scenarios</RouterLink>
    </PageHead>
    <div v-if="choices" class="desk">
      <form class="wish" @submit.prevent>
        <StoryWishForm v-model="wish" :choices="choices" :scenarios="scenarios" />
      </form>
      <section class="sheet on-paper" aria-label="The stories">
        <p v-if="!total" class="quiet">Add a step on the left: its stories appear here.</p>
        <ProgressBar class="busy" :class="{ idle: !busy }" mode="indeterminate" aria-label="Telling them" />
        <p v-if="refusal" class="refusal" role="alert">{{ refusal.message }} {{ refusal.hint }}</p>
        <p v-if="made?.impossible" class="refusal" role="status">
          {{ made.impossible.said }}
          <template v-if="made.impossible.nearest !== null"
            >The nearest that works: {{ [made.impossible.nearest].flat().join(', ') || 'none' }}.</template
          >
        </p>
        <MadeStories v-if="made" v-model:kept="kept" :stories="made.stories" :names="names" :busy="busy" @swap="swap" />
        <p v-if="made?.stories.length" class="acts">
          <Button label="Put them on the ladder" @click="take(made.stories)" />
          <Button
            :label="kept.some(Boolean) ? 'Tell the rest anew' : 'Others'"
            variant="outlined"
            :disabled="busy"
            @click="another"
          />
        </p>
      </section>
    </div>
    <p v-else-if="refusal" role="alert">{{ refusal.message }} {{ refusal.hint }}</p>
  </main>
</template>

<style scoped src="../styles/order.css"></style>
<style scoped>
.busy.idle {
  visibility: hidden;
}
.refusal {
  padding-bottom: 8px;
}
</style>
