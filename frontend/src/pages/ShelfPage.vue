<script setup lang="ts">
import { useStorage } from '@vueuse/core'
import Button from 'primevue/button'
import SelectButton from 'primevue/selectbutton'
import Skeleton from 'primevue/skeleton'
import ToggleSwitch from 'primevue/toggleswitch'
import { computed, onMounted } from 'vue'

import { ask, client } from '../api/client'
import TodayBox from '../classes/TodayBox.vue'
import PageHead from '../parts/PageHead.vue'
import PickOne from '../parts/PickOne.vue'
import { useAsk } from '../parts/useAsk'
import BeginSet from '../shelf/BeginSet.vue'
import SearchField from '../shelf/SearchField.vue'
import SetSlip from '../shelf/SetSlip.vue'
import { type Order, type Place, useShelf } from '../shelf/useShelf'

const MANY = 12 // sets; from so many on they are listed
const { sets, trouble, place, search, order, counts, total, load, put, duplicate, emptyBin } = useShelf()
const askFirst = useAsk()
const chosen = useStorage<boolean | null>('keen-slate-compact', null, localStorage, {
  serializer: { read: (text) => JSON.parse(text) as boolean | null, write: (value) => JSON.stringify(value) },
})
const compact = computed({
  get: () => chosen.value ?? (counts.value[place.value] ?? 0) >= MANY,
  set: (now) => (chosen.value = now),
})
const PLACES: { code: Place; name: string }[] = [
  { code: 'shelf', name: 'On the shelf' },
  { code: 'archive', name: 'Archive' },
  { code: 'bin', name: 'Bin' },
]
const ORDERS: { code: Order; name: string }[] = [
  { code: 'changed', name: 'changed last first' },
  { code: 'title', name: 'by title' },
  { code: 'shown', name: 'on the wall last first' },
]

/** End the sign-in of this browser; a new link lets it in again. */
async function leave(): Promise<void> {
  const answer = await ask(client.POST('/api/leave'))
  if (answer.ok) window.location.assign('/door')
  else trouble.value = answer.refusal
}

onMounted(() => {
  document.title = 'Shelf · Keen Slate'
  void load()
})
</script>

<template>
  <main class="shelf">
    <PageHead title="Shelf">
      <RouterLink class="word" :to="{ name: 'classes' }">Classes</RouterLink>
      <RouterLink class="word" :to="{ name: 'colleagues' }">From colleagues</RouterLink>
      <RouterLink class="word" :to="{ name: 'catalogue' }">Likely wrong answers</RouterLink>
      <RouterLink class="word" :to="{ name: 'building' }">Number building</RouterLink>
      <RouterLink class="word mine" :to="{ name: 'account' }">My account</RouterLink>
      <Button class="word leave" @click="leave">Sign out</Button>
    </PageHead>
    <p v-if="trouble" class="trouble" role="alert">
      {{ trouble.message }} {{ trouble.hint }} <Button class="word" @click="load()">Try again</Button>
    </p>
    <BeginSet />
    <TodayBox />
    <div class="look">
      <SelectButton v-model="place" :options="PLACES" option-value="code" :allow-empty="false" aria-label="Which sets">
        <template #option="{ option }">{{ option.name }} {{ counts[option.code] || '' }}</template>
      </SelectButton>
      <SearchField v-model="search" />
      <PickOne v-model="order" label="In which order" bare :options="ORDERS" />
      <label class="compact"><ToggleSwitch v-model="compact" /> as a list</label>
      <Button
        v-if="place === 'bin' && sets?.length"
        class="word"
        @click="askFirst($event, 'What is in the bin goes for good.', 'Empty it', emptyBin)"
      >
        Empty the bin for good
      </Button>
    </div>
    <ul class="sheets" :data-compact="compact">
      <template v-if="!sets">
        <li v-for="i in 3" :key="i"><Skeleton height="110px" /></li>
      </template>
      <SetSlip
        v-for="set in sets"
        :key="set.id"
        :set="set"
        :place="place"
        :compact="compact"
        @put="put(set, $event)"
        @duplicate="duplicate(set)"
      />
    </ul>
    <p v-if="sets && total > sets.length" class="more">
      {{ sets.length }} of {{ total.toLocaleString('en') }} sets.
      <Button class="word" @click="load(sets.length)">Show more</Button>
    </p>
    <p v-if="sets?.length === 0" class="more">
      {{
        search
          ? 'No set has these words.'
          : place === 'shelf'
            ? 'The shelf is empty. Begin with a standard above: eight problems, graded, in one click.'
            : 'Nothing lies here.'
      }}
    </p>
  </main>
</template>

<style scoped src="../shelf/shelf.css"></style>
