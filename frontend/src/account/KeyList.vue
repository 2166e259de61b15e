<script setup lang="ts">
import Button from 'primevue/button'

import type { Schemas } from '../api/client'
import { momentOf } from '../parts/moments'
import { useAsk } from '../parts/useAsk'

/** What lets a teacher in besides her password, each of which can be taken away. */
defineProps<{
  keys: (Schemas['PasskeyOut'] | Schemas['IdentityOut'])[]
  /** What one of them is. */
  what: string
}>()
const emit = defineEmits<{ remove: [id: string] }>()
const askFirst = useAsk()
</script>

<template>
  <ul v-if="keys.length">
    <li v-for="one in keys" :key="one.id">
      <span>{{ one.name || 'without a name' }}</span>
      <span class="quiet">{{ one.seen_at ? `last used ${momentOf(one.seen_at)}` : 'not used yet' }}</span>
      <Button
        class="word"
        :aria-label="`Take away the ${what} ${one.name}`"
        @click="askFirst($event, 'It lets nobody in any more.', 'Take away', () => emit('remove', one.id))"
      >
        Take away
      </Button>
    </li>
  </ul>
</template>

<style scoped src="../classes/class.css"></style>
<style scoped src="./account.css"></style>
<style scoped>
li {
  grid-template-columns: minmax(0, 7fr) minmax(0, 6fr) 6rem;
}
</style>
