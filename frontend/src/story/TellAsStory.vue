<script setup lang="ts">
import Button from 'primevue/button'
import Dialog from 'primevue/dialog'
import { ref, watch } from 'vue'

import { client, type Refusal, type ToldStory } from '../api/client'
import { useLatest } from '../api/useLatest'
import MathLine from '../parts/MathLine.vue'
import { usePaper } from '../stores/paper'
import StoryText from './StoryText.vue'

/** Three stories that fit the numbers of the chosen example; the one that is taken replaces it. */
const visible = defineModel<boolean>('visible', { required: true })
const paper = usePaper()
const stories = ref<ToldStory[] | null>(null)
const refusal = ref<Refusal | null>(null)
const { latest } = useLatest()

async function tell(): Promise<void> {
  if (!paper.example || !paper.working) return
  const body = {
    text: paper.example.text,
    ways: paper.working.methods,
    seed: Math.floor(Math.random() * 2 ** 31),
  }
  const answer = await latest((signal) => client.POST('/api/stories/tell', { body, signal }))
  if (!answer) return
  stories.value = answer.ok ? answer.data.stories : []
  refusal.value = answer.ok ? null : answer.refusal
}

watch(
  visible,
  async (shown) => {
    if (!shown) return
    stories.value = null
    await tell()
  },
  { immediate: true }, // it is loaded when it is first opened
)

async function take(told: ToldStory): Promise<void> {
  if (await paper.changeExample({ source: told.story.source })) visible.value = false
}
</script>

<template>
  <Dialog v-model:visible="visible" modal header="Tell it as a story" :closable="false" dismissable-mask>
    <div class="told on-paper">
      <p v-if="refusal" class="refusal" role="alert">{{ refusal.message }} {{ refusal.hint }}</p>
      <p v-else-if="stories && !stories.length">
        No story fits these numbers: it takes one calculation with two numbers that there can be so much of.
      </p>
      <article v-for="told in stories ?? []" :key="told.story.source">
        <p class="kind">
          <strong>{{ told.rung }}</strong> {{ told.story.situation_name }}, {{ told.story.unknown_name }} is to be found
        </p>
        <StoryText :story="told.story" />
        <p class="answer"><MathLine :glyphs="told.story.answer_glyphs" :spoken="told.story.answer" /></p>
        <Button label="Take this one" size="small" @click="take(told)" />
      </article>
      <p class="ways">
        <Button v-if="stories?.length" label="Three others" variant="outlined" @click="tell" />
        <Button label="Leave it as it is" variant="outlined" @click="visible = false" />
      </p>
    </div>
  </Dialog>
</template>

<style scoped>
.told {
  display: grid;
  gap: 1rem;
  width: min(44rem, 86vw);
}
article {
  border-top: 1px solid var(--hair);
  padding-top: 0.7rem;
  font-size: 1.1rem;
  line-height: 1.7;
}
.kind,
.answer {
  font-size: 0.95rem;
  color: var(--ink-quiet);
}
.answer {
  padding-bottom: 0.4rem;
}
.refusal {
  color: var(--role-wrong);
}
.ways {
  display: flex;
  gap: 0.8rem;
}
</style>
