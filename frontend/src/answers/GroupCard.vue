<script setup lang="ts">
import Button from 'primevue/button'
import Menu from 'primevue/menu'
import { computed, ref, useTemplateRef, watch } from 'vue'
import { VueDraggable } from 'vue-draggable-plus'

import type { Group, Pupil } from '../api/client'
import FigureDrawing from '../parts/FigureDrawing.vue'
import MathLine from '../parts/MathLine.vue'
import { heldBy } from './cells'

const props = defineProps<{
  group: Group
  groups: Group[]
  /** The days on which what was mastered comes back, as they are written. */
  returns: string[]
  busy: boolean
}>()
const emit = defineEmits<{ move: [pupil: string, codes: string[] | null]; make: [] }>()

const pupils = ref<Pupil[]>([])
watch(
  () => props.group,
  (group) => (pupils.value = [...group.pupils]),
  { immediate: true },
)
const title = computed(() => {
  const said = heldBy(props.group)
  return said.slice(0, 1).toUpperCase() + said.slice(1)
})

/** What was dropped here belongs here now. */
function dropped(event: { data: Pupil }): void {
  emit('move', event.data.id, props.group.codes)
}

// The same by keys: a pupil opens a menu of the groups.
const menu = useTemplateRef<InstanceType<typeof Menu>>('menu')
const inHand = ref<Pupil | null>(null)
const choices = computed(() => {
  const who = inHand.value
  if (!who) return []
  const others = props.groups.filter((one) => one !== props.group)
  const to = others.map((one) => ({
    label: `To: ${heldBy(one)}`,
    command: () => emit('move', who.id, one.codes),
  }))
  const back = { label: 'Back to where the answers put them', command: () => emit('move', who.id, null) }
  return props.group.moved.includes(who.id) ? [...to, back] : to
})
function choose(event: Event, who: Pupil): void {
  inHand.value = who
  menu.value?.toggle(event)
}
</script>

<template>
  <section class="card on-paper" :aria-label="title">
    <h2>
      {{ title }}
      <span>· {{ group.pupils.length }} {{ group.pupils.length === 1 ? 'pupil' : 'pupils' }}</span>
    </h2>
    <VueDraggable v-model="pupils" tag="ul" class="names" group="pupils" :animation="120" @add="dropped">
      <li v-for="who in pupils" :key="who.id">
        <Button
          class="name"
          :data-moved="group.moved.includes(who.id)"
          :title="`Move ${who.alias}`"
          aria-haspopup="menu"
          @click="choose($event, who)"
        >
          {{ who.alias }}<span v-if="group.moved.includes(who.id)" class="sr-only">, moved by hand</span>
        </Button>
      </li>
    </VueDraggable>
    <Menu ref="menu" :model="choices" popup />
    <div v-if="group.show.length" class="show">
      <p>
        <strong>Show</strong> <MathLine :glyphs="group.show" class="big" />
        <template v-if="group.show_wrong.length">
          <span class="quiet">they write</span> <MathLine :glyphs="group.show_wrong" class="big" />
        </template>
      </p>
      <p v-if="group.show_lines.length" class="wrong">
        <template v-for="(glyphs, i) in group.show_lines" :key="i"
          ><span v-if="i">; </span><MathLine :glyphs="glyphs"
        /></template>
      </p>
      <FigureDrawing v-if="group.figure" class="seen" :figure="group.figure" />
    </div>
    <p v-if="group.question"><strong>Ask</strong> “{{ group.question }}”</p>
    <p v-if="group.onwards"><strong>Next rung</strong> {{ group.onwards }}</p>
    <p class="ladder">
      <strong>Ladder</strong>
      <MathLine v-for="one in group.ladder" :key="one.text" :glyphs="one.glyphs" class="big" />
      <span v-if="group.tells_from.length" class="quiet">tells it from: {{ group.tells_from.join(', ') }}</span>
      <span v-if="!group.ladder.length" class="quiet">no problem could be built for this</span>
    </p>
    <p v-if="group.check"><strong>Check</strong> <MathLine :glyphs="group.check.glyphs" class="big" /></p>
    <p v-if="!group.codes.length && returns.length"><strong>Come back</strong> to this on {{ returns.join(', ') }}</p>
    <Button class="make" label="Make this set" :disabled="busy || !group.ladder.length" @click="emit('make')" />
  </section>
</template>

<style scoped src="./card.css"></style>
<style scoped>
.names {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
  min-height: 32px;
}
.name {
  border: 0;
  background: none;
  color: inherit;
  padding: 2px 0;
  cursor: grab;
  border-bottom: 2px dotted var(--ink-quiet);
}
.name[data-moved='true'] {
  border-bottom-style: solid;
}
.big {
  font-size: 1.2rem;
  margin: 0 0.35em;
}
.ladder .big {
  margin: 0;
}
.ladder {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 18px;
  align-items: baseline;
}
.show {
  display: grid;
  gap: 4px;
}
.wrong {
  color: var(--role-wrong);
  font-size: 0.95rem;
}
.seen {
  height: auto;
  max-width: min(100%, 430px);
  max-height: 130px;
}
.make {
  justify-self: start;
  align-self: end;
}
</style>
