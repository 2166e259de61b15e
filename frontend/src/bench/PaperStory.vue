<script setup lang="ts">
import Button from 'primevue/button'
import { ref } from 'vue'

import type { Story } from '../api/client'
import MathLine from '../parts/MathLine.vue'
import { usePaper } from '../stores/paper'
import StoryDesk from '../story/StoryDesk.vue'
import StoryModel from '../story/StoryModel.vue'
import StoryText from '../story/StoryText.vue'
import { useWholeSquares } from './useWholeSquares'

const props = defineProps<{
  story: Story
  /** Whether a click on a model, a calculation or the sentence leaves it to pupils. */
  blanking: boolean
  /** Whether what is left to pupils is shown. */
  peek: boolean
}>()
const emit = defineEmits<{ blank: [key: string] }>()
const paper = usePaper()
const changing = ref(false)
const inner = ref<HTMLElement | null>(null)
const below = useWholeSquares(inner)

/** The numbers without the story; the story can be undone to. */
const onlyNumbers = () => paper.changeExample({ source: props.story.numbers })
</script>

<template>
  <section class="story" aria-label="Story" :style="{ paddingBottom: `${below}px` }">
    <div ref="inner">
      <StoryText class="text" :story="story" />
      <p class="acts">
        <Button class="word" @click="changing = true">Change the story</Button>
        <Button class="word" @click="onlyNumbers">Only the numbers</Button>
        <span class="kind">{{ story.situation_name }}, {{ story.unknown_name }} is to be found</span>
      </p>
      <ol class="models">
        <li v-for="(part, i) in story.calculations" :key="part.told">
          <p class="finds">
            <template v-if="story.calculations.length > 1">{{ i + 1 }}. {{ part.finds }}: </template>
            <span v-if="part.hidden && !peek" class="fill"><span class="sr-only">a calculation to fill in</span></span>
            <MathLine v-else-if="blanking || story.calculations.length > 1" :glyphs="part.glyphs" />
            <small>{{ part.rung }}</small>
            <Button v-if="blanking" class="word" @click="emit('blank', `calculation ${i} row`)">
              {{ part.hidden ? 'show it' : 'pupils write it' }}
            </Button>
          </p>
          <template v-if="part.model">
            <span v-if="part.model_hidden && !peek" class="fill drawn"
              ><span class="sr-only">a model to draw</span></span
            >
            <StoryModel v-else :figure="part.model" />
            <p v-if="blanking" class="finds">
              <Button class="word" @click="emit('blank', `model ${i} row`)">
                {{ part.model_hidden ? 'show the model' : 'pupils draw it' }}
              </Button>
              <Button
                v-for="k in part.numbers"
                :key="k"
                class="word"
                @click="emit('blank', `model ${i} cell ${k - 1}`)"
              >
                {{ k === part.numbers ? 'blank what is found' : `blank number ${k}` }}
              </Button>
            </p>
          </template>
        </li>
      </ol>
    </div>
    <StoryDesk v-model:visible="changing" :known="story" />
  </section>
</template>

<style scoped>
.story {
  padding-right: var(--square);
}
.text {
  font-size: 1.25rem;
  line-height: calc(2 * var(--square));
  max-width: 46rem;
}
.acts,
.finds {
  display: flex;
  flex-wrap: wrap;
  gap: 0 14px;
  align-items: center;
  line-height: var(--square);
}
.finds {
  min-height: calc(2 * var(--square));
}
.acts .word,
.finds .word {
  text-decoration: underline;
  text-underline-offset: 3px;
  padding: 0 2px;
  line-height: inherit;
  font-size: 0.92rem;
}
.kind {
  color: var(--ink-quiet);
  font-size: 0.88rem;
}
.models {
  display: flex;
  flex-wrap: wrap;
  gap: var(--square) calc(2 * var(--square));
  padding: var(--square) 0;
}
.finds {
  font-size: 1.05rem;
  gap: 0 8px;
}
.finds small {
  color: var(--ink-quiet);
}
.fill {
  display: inline-block;
  width: 12em;
  height: calc(1.4 * var(--square));
  border: 1.5px dashed var(--ink-quiet);
  border-radius: 3px;
  background: var(--paper);
}
.drawn {
  width: 20em;
  height: calc(4 * var(--square));
}
</style>
