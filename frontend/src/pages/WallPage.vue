<script setup lang="ts">
import { computed, nextTick, onBeforeUnmount, onMounted, ref, watch } from 'vue'
import { useRouter } from 'vue-router'

import { ask, client, type Example, type ExampleSet, type Refusal } from '../api/client'
import { useLatest } from '../api/useLatest'
import FigureDrawing from '../parts/FigureDrawing.vue'
import MathLine from '../parts/MathLine.vue'
import { useReveal } from '../wall/useReveal'
import { useTimer } from '../wall/useTimer'
import { useWallFigure } from '../wall/useWallFigure'
import WallBar from '../wall/WallBar.vue'
import WallBoxes from '../wall/WallBoxes.vue'
import WallChoices from '../wall/WallChoices.vue'
import WallLine from '../wall/WallLine.vue'
import WallSheet from '../wall/WallSheet.vue'
import WallStory from '../wall/WallStory.vue'
import WallWrong from '../wall/WallWrong.vue'

const props = defineProps<{
  setId: string
  /** The example on the wall; where it was left, or the first one, when the address names none. */
  exampleId?: string
}>()

type Layout = '' | 'line' | 'stacked' | 'four-box' | 'checklist'
/** What a reload comes back to. */
interface Kept {
  example: string | null
  at: number
  layout: Layout
  light: boolean
}

const router = useRouter()
const keptAs = `wall ${props.setId}`
const kept: Kept = {
  example: null,
  at: 0,
  layout: '',
  light: false,
  ...(JSON.parse(localStorage.getItem(keptAs) ?? '{}') as Partial<Kept>),
}

const set = ref<ExampleSet | null>(null)
const page = ref<Example | null>(null)
const chosen = ref<string | null>(null)
const at = ref(0)
const layout = ref<Layout>(kept.layout)
const light = ref(kept.light)
const wrong = ref<{ index: number; resolved: boolean } | null>(null)
/** Four options to choose from: not shown, asked, or told which one is right. */
const options = ref<'' | 'asked' | 'told'>('')
const chrome = ref(false)
const refusal = ref<Refusal | null>(null)
const lines = ref<HTMLElement | null>(null)

const working = computed(() => page.value?.working ?? null)
const examples = computed(() => (set.value?.examples ?? []).filter((item) => !item.unreadable))
const index = computed(() => examples.value.findIndex((item) => item.id === chosen.value))
const example = computed(() => examples.value[index.value] ?? null)
const { presses, done, current, asks, isOpen, isTold } = useReveal(working, at)
const { seconds } = useTimer(
  () => props.setId,
  () => chosen.value,
)
const wrongs = computed(() => working.value?.misconceptions.filter((item) => item.status !== 'hidden') ?? [])
const item = computed(() => (wrong.value ? (wrongs.value[wrong.value.index] ?? null) : null))
const { figure, state } = useWallFigure(working, current, isOpen, isTold)
const moment = computed(() => working.value?.sheet?.moments[current.value] ?? null)
const clock = (time: number) => `${Math.floor(time / 60)}:${String(time % 60).padStart(2, '0')}`

watch([chosen, at, layout, light], () => {
  localStorage.setItem(
    keptAs,
    JSON.stringify({ example: chosen.value, at: at.value, layout: layout.value, light: light.value } satisfies Kept),
  )
})
// The line in hand stays in sight: finished lines scroll away above it.
watch([at, working], async () => {
  await nextTick()
  const inHand = lines.value?.querySelectorAll('[data-current=true], .whole, .label') ?? []
  inHand[inHand.length - 1]?.scrollIntoView({ block: 'end' })
})
watch(
  () => set.value?.title,
  (title) => (document.title = title ? `${title} · Wall · Keen Slate` : 'Wall · Keen Slate'),
)

const { latest } = useLatest()
async function load(id: string, start: number | 'end'): Promise<void> {
  const params = { path: { set_id: props.setId, example_id: id }, query: layout.value ? { layout: layout.value } : {} }
  const answer = await latest((signal) => client.GET('/api/sets/{set_id}/examples/{example_id}', { params, signal }))
  if (!answer) return
  refusal.value = answer.ok ? null : answer.refusal
  if (!answer.ok) return
  page.value = answer.data
  chosen.value = id
  wrong.value = null
  options.value = ''
  at.value = start === 'end' ? presses.value.length : Math.min(start, presses.value.length)
  void router.replace({ name: 'wall', params: { setId: props.setId, exampleId: id } })
}

async function go(by: number, start: number | 'end' = 0): Promise<void> {
  const next = examples.value[index.value + by]
  if (next) await load(next.id, start)
}

/** Uncover the next line; behind the last one comes the next example. */
async function forward(): Promise<void> {
  if (options.value) nextOfChoices()
  else if (wrong.value && !wrong.value.resolved) wrong.value.resolved = true
  else if (wrong.value) wrong.value = null
  else if (!done.value) at.value += 1
  else await go(1)
}

async function back(): Promise<void> {
  if (options.value) options.value = options.value === 'told' ? 'asked' : ''
  else if (wrong.value) wrong.value = null
  else if (at.value > 0) at.value -= 1
  else await go(-1, 'end')
}

/** The next likely wrong answer as a question; behind the last one, none. */
function showWrong(): void {
  const next = (wrong.value?.index ?? -1) + 1
  wrong.value = next < wrongs.value.length ? { index: next, resolved: false } : null
}

/** The options, then what they tell, then the working again; nothing where the problem has none. */
function nextOfChoices(): void {
  wrong.value = null
  const next = { '': 'asked', asked: 'told', told: '' } as const
  options.value = working.value?.choices.length ? next[options.value] : ''
}

async function changeLayout(to?: Layout): Promise<void> {
  const all: Layout[] = ['line', 'stacked', 'four-box', 'checklist']
  const now = (layout.value || working.value?.layout || 'line') as Layout
  layout.value = to ?? all[(all.indexOf(now) + 1) % all.length] ?? 'line'
  if (chosen.value) await load(chosen.value, at.value)
}

function fullScreen(): void {
  if (document.fullscreenElement) void document.exitFullscreen()
  else void document.documentElement.requestFullscreen()
}

const KEYS: Record<string, () => unknown> = {
  ' ': forward,
  ArrowRight: forward,
  ArrowDown: forward,
  PageDown: forward,
  Enter: forward,
  Backspace: back,
  ArrowLeft: back,
  ArrowUp: back,
  PageUp: back,
  n: () => go(1),
  p: () => go(-1),
  Home: () => (at.value = 0),
  End: () => (at.value = presses.value.length),
  w: showWrong,
  c: nextOfChoices,
  l: () => changeLayout(),
  d: () => (light.value = !light.value),
  f: fullScreen,
  Escape: () => {
    wrong.value = null
    options.value = ''
  },
}

function onKey(event: KeyboardEvent): void {
  if (event.ctrlKey || event.metaKey || event.altKey) return
  const inBar = event.target instanceof HTMLElement && !!event.target.closest('button, [role=combobox]')
  if (inBar && [' ', 'Enter', 'ArrowUp', 'ArrowDown'].includes(event.key)) return
  const act = KEYS[event.key]
  if (!act) return
  event.preventDefault()
  void act()
}

let hiding: ReturnType<typeof setTimeout> | undefined
function stir(): void {
  chrome.value = true
  clearTimeout(hiding)
  hiding = setTimeout(() => (chrome.value = false), 3500)
}

/** A tap: on the left edge one line back, anywhere else the next. */
function onClick(event: MouseEvent): void {
  void (event.clientX < window.innerWidth / 8 ? back() : forward())
}

onMounted(async () => {
  window.addEventListener('keydown', onKey)
  const answer = await ask(client.GET('/api/sets/{set_id}', { params: { path: { set_id: props.setId } } }))
  if (!answer.ok) return void (refusal.value = answer.refusal)
  set.value = answer.data
  const wanted = examples.value.find((one) => one.id === (props.exampleId ?? kept.example)) ?? examples.value[0]
  if (wanted) await load(wanted.id, wanted.id === kept.example ? kept.at : 0)
})
onBeforeUnmount(() => {
  window.removeEventListener('keydown', onKey)
  clearTimeout(hiding)
})
</script>

<template>
  <main class="wall" :data-light="light" @mousemove="stir" @focusin="stir">
    <p v-if="refusal" class="note" role="alert">
      {{ refusal.message }} {{ refusal.hint }} <RouterLink to="/">Shelf</RouterLink>
    </p>
    <p v-else-if="set && !examples.length" class="note">
      This set has no example yet. <RouterLink :to="{ name: 'bench', params: { setId } }">Bench</RouterLink>
    </p>
    <div v-else-if="working && example" class="stage" @click="onClick">
      <div class="work" :data-wrong="!!item || !!options">
        <div ref="lines" class="lines" aria-live="polite">
          <WallChoices
            v-if="options && working.rows[0]"
            :problem="working.rows[0]"
            :choices="working.choices"
            :before="working.answer.label_before"
            :told="options === 'told'"
          />
          <WallWrong
            v-else-if="item"
            :set-id="setId"
            :example-id="example.id"
            :item="item"
            :resolved="!!wrong?.resolved"
          />
          <template v-else>
            <WallStory
              v-if="working.story"
              :story="working.story"
              :asks="isTold('question')"
              :large="!isTold('calculation')"
              :model="isTold('calculation') ? null : figure"
            />
            <ol v-if="isTold('calculation') && !working.boxes.length && !working.sheet">
              <WallLine
                v-for="(row, i) in working.rows.slice(0, current + 2)"
                :key="i"
                :row="row"
                :step="working.steps[i - 1]"
                :current="i === current + 1"
                :open="isOpen(i - 1)"
                :last="i > 0 && i === working.rows.length - 1"
              />
            </ol>
            <template v-else-if="isTold('calculation')">
              <ol>
                <WallLine
                  v-if="working.rows[0] && !working.sheet"
                  :row="working.rows[0]"
                  :current="current < 0"
                  :open="false"
                  :last="false"
                />
              </ol>
              <WallSheet
                v-if="working.sheet && working.rows[0]"
                class="whole"
                :sheet="working.sheet"
                :problem="working.rows[0]"
                :current="current"
                :open="isOpen(current)"
                :done="done"
              />
              <WallBoxes :boxes="working.boxes.slice(0, current + 1)" :current="current" :open="isOpen(current)" />
            </template>
            <p v-if="working.story && isTold('sentence')" class="label">
              <MathLine :glyphs="working.story.answer_glyphs" :spoken="working.story.answer" />
            </p>
            <p v-else-if="done && !working.story && working.problem.label" class="label">
              Answer: <template v-if="working.answer.label_before">{{ working.answer.label }}</template><MathLine
                :glyphs="working.answer.glyphs"
              /><template v-if="!working.answer.label_before">{{ ' ' + working.answer.label }}</template>
            </p>
          </template>
        </div>
        <div v-if="(figure || moment) && isTold('calculation') && !item && !options" class="side">
          <figure v-if="figure" class="card paper-inks">
            <FigureDrawing :figure="figure" :state="state" />
          </figure>
          <p v-if="moment && !isOpen(current)" class="quiet moment"><MathLine :glyphs="moment.title_glyphs" /></p>
        </div>
      </div>
      <div v-if="options ? options === 'asked' : item ? !wrong?.resolved : !done" class="cover">
        <p>{{ options ? 'Which one is right? How do you know?' : item ? 'Is this right? How do you know?' : asks }}</p>
      </div>
      <footer class="foot">
        <span>{{ index + 1 }} of {{ examples.length }}</span>
        <span class="title">{{ set?.title }}</span>
        <span role="timer" aria-live="off">{{ clock(seconds) }} of {{ clock(example.seconds) }}</span>
      </footer>
    </div>
    <WallBar
      v-if="working && example"
      v-show="chrome"
      :set-id="setId"
      :layout="working.layout as 'line'"
      :light="light"
      :wrongs="wrongs"
      :at="index"
      :of="examples.length"
      :done="done"
      @forward="forward"
      @back="back"
      @go="go"
      @layout="changeLayout"
      @light="light = !light"
      @full="fullScreen"
      @uncover="at = done ? 0 : presses.length"
      @wrong="wrong = { index: $event, resolved: false }"
    />
  </main>
</template>

<style scoped>
/* A digit of a fraction is 1/14 of the screen's height or more, and nothing here ever makes it smaller. */
.wall {
  --square: calc(100vh / 14);
  --half: calc(var(--square) / 2);
  --half-x: calc(0.44 * var(--square));
  --wall-quiet: #c3d0d6;
  height: 100vh;
  overflow: hidden;
  position: relative;
  background: #202a33;
  color: #f3f5f2;
}
.wall[data-light='false'] {
  --role-first: #8cc5f5;
  --role-second: #f7b45c;
  --role-third: #86d4b5;
  --role-fourth: #d3b8f0;
  --role-fifth: #f2a9c0;
  --role-sixth: #d8cf94;
  --role-carried: #dfa9de;
  --role-wrong: #ff9f8c;
  --role-answer: #f3f5f2;
  --paper: #202a33;
  --ink-quiet: #c3d0d6;
}
.wall[data-light='true'] {
  background: var(--paper);
  color: var(--ink);
  --wall-quiet: var(--ink-quiet);
}
.stage {
  height: 100%;
  display: grid;
  grid-template-rows: minmax(0, 1fr) auto auto;
  cursor: default;
}
.work {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 3vw;
  min-height: 0;
  padding: 3vh 3vw 0 4vw;
  align-items: start;
}
.work[data-wrong='true'] {
  grid-template-columns: minmax(0, 1fr);
  height: 100%;
}
.lines {
  overflow: hidden auto;
  max-height: 100%;
  min-height: 0;
  scrollbar-width: none;
  padding: 4px 8px 0 0;
}
.card {
  margin: 2vh 0 0;
  border-radius: 8px;
  padding: 2vh 1.4vw;
}
.card :deep(.figure) {
  --scale: 10px;
  width: 100%;
  height: auto;
  max-height: 56vh;
}
.cover {
  min-height: 17vh;
  padding: 4vh 4vw 0;
  border-top: 3px solid #5b7482;
  font-size: calc(0.62 * var(--square));
  background: repeating-linear-gradient(45deg, #26323b 0 14px, #2a3741 14px 28px);
  color: #dbe4e8;
}
.wall[data-light='true'] .cover {
  background: repeating-linear-gradient(45deg, #e9eeee 0 14px, #e2e9ea 14px 28px);
  color: var(--ink);
  border-color: #8fa3ae;
}
.foot {
  display: flex;
  gap: 2vw;
  padding: 1.2vh 4vw;
  font-size: calc(0.38 * var(--square));
  color: var(--wall-quiet);
}
.title {
  flex: 1;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.quiet {
  color: var(--wall-quiet);
  font-weight: 400;
  font-size: calc(0.5 * var(--square));
  line-height: 1.4;
}
.side {
  width: 37vw;
}
.moment {
  padding-top: calc(0.4 * var(--square));
}
.label {
  font-size: calc(0.8 * var(--square));
  padding: 0.2em 0 0 var(--square);
}
.note {
  padding: 4rem;
  font-size: 1.3rem;
}
</style>
