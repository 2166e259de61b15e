<script setup lang="ts">
import Button from 'primevue/button'
import Checkbox from 'primevue/checkbox'
import InputText from 'primevue/inputtext'
import { ref } from 'vue'

import { ask, client, type Answer, type Schemas } from '../api/client'
import limits from '../parts/limits.json'
import { momentOf } from '../parts/moments'
import { useAsk } from '../parts/useAsk'

/** Who teaches in a school; its head invites, lets in again, and takes out. */
defineProps<{ school: Schemas['SchoolOut'] }>()
const emit = defineEmits<{ done: [answer: Answer<unknown>] }>()
const askFirst = useAsk()
const name = ref('')
const address = ref('')
const head = ref(false)
/** A link that was just made, and for whom: it is shown this once. */
const made = ref<{ link: string; said: string } | null>(null)

async function invite(): Promise<void> {
  const body = { name: name.value, head: head.value, address: address.value.trim() || null }
  const answer = await ask(client.POST('/api/school/invitations', { body }))
  if (answer.ok) {
    const sent = answer.data.sent ? `, and on its way to ${address.value.trim()}` : ''
    made.value = { link: answer.data.link, said: `For ${name.value.trim()}, good for seven days, once${sent}` }
    name.value = address.value = ''
    head.value = false
  }
  emit('done', answer)
}

async function letIn(one: Schemas['TeacherOut']): Promise<void> {
  const params = { path: { teacher_id: one.id } }
  const answer = await ask(client.POST('/api/school/teachers/{teacher_id}/links', { params }))
  if (answer.ok)
    made.value = { link: answer.data.link, said: `${one.name} comes in by it for twelve hours, once; her log says so` }
  emit('done', answer)
}

async function takeOut(one: Schemas['TeacherOut']): Promise<void> {
  const params = { path: { teacher_id: one.id } }
  emit('done', await ask(client.DELETE('/api/school/teachers/{teacher_id}', { params })))
}

async function withdraw(one: Schemas['InvitationOut']): Promise<void> {
  const params = { path: { named: one.id } }
  emit('done', await ask(client.DELETE('/api/school/invitations/{named}', { params })))
}
</script>

<template>
  <section class="sheet on-paper" aria-labelledby="who">
    <h2 id="who">Who teaches at {{ school.school }}</h2>
    <ul>
      <li v-for="one in school.teachers" :key="one.id">
        <span>{{ one.name }}</span>
        <span class="quiet">{{ [one.here ? 'you' : '', one.head ? 'head' : ''].filter(Boolean).join(', ') }}</span>
        <span v-if="school.head && !one.here" class="acts">
          <Button
            class="word"
            :aria-label="`A link to come in for ${one.name}`"
            @click="
              askFirst(
                $event,
                'Whoever opens the link is signed in as this teacher. Hand it to nobody else.',
                'Make a link',
                () => letIn(one),
              )
            "
          >
            A link to come in
          </Button>
          <Button
            class="word"
            :aria-label="`Take out of the school: ${one.name}`"
            @click="
              askFirst(
                $event,
                'Her sets and classes stay hers; what she shared is withdrawn.',
                'Take out of the school',
                () => takeOut(one),
              )
            "
          >
            Take out
          </Button>
        </span>
      </li>
    </ul>
    <template v-if="school.head">
      <form class="invite" @submit.prevent="invite">
        <label for="invited">Invite a teacher called</label>
        <InputText id="invited" v-model="name" autocomplete="off" :maxlength="limits.title" required />
        <template v-if="school.mail">
          <label for="invited-at">Send it to (e-mail, if you like)</label>
          <InputText id="invited-at" v-model="address" type="email" autocomplete="off" :maxlength="limits.address" />
        </template>
        <span class="as-head">
          <Checkbox v-model="head" input-id="invited-head" binary />
          <label for="invited-head">as a head, too</label>
        </span>
        <Button type="submit" label="Make a link" :disabled="!name.trim()" />
      </form>
      <p v-if="made" class="made" role="status">
        {{ made.said }}: <code>{{ made.link }}</code>
      </p>
      <ul v-if="school.invitations.length">
        <li v-for="one in school.invitations" :key="one.id">
          <span>{{ one.name }}</span>
          <span class="quiet">invited{{ one.head ? ' as a head' : '' }} until {{ momentOf(one.ends_at) }}</span>
          <span class="acts">
            <Button class="word" :aria-label="`Withdraw the invitation of ${one.name}`" @click="withdraw(one)">
              Withdraw
            </Button>
          </span>
        </li>
      </ul>
    </template>
  </section>
</template>

<style scoped src="../classes/class.css"></style>
<style scoped>
li {
  display: grid;
  grid-template-columns: minmax(0, 5fr) minmax(0, 4fr) minmax(14rem, auto);
  gap: 2px 20px;
  padding: 6px 0;
  border-top: 1px solid var(--hair);
  align-items: center;
  min-height: 2.6rem;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 18px;
  justify-content: flex-end;
}
.invite {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 12px;
  align-items: center;
  padding: 14px 0;
}
.invite .p-inputtext {
  width: min(18rem, 100%);
}
.as-head {
  display: flex;
  gap: 8px;
  align-items: center;
}
.made {
  padding-bottom: 14px;
}
code {
  overflow-wrap: anywhere;
  user-select: all;
}
@media (max-width: 800px) {
  li {
    grid-template-columns: minmax(0, 1fr);
  }
  .acts {
    justify-content: flex-start;
  }
}
</style>
