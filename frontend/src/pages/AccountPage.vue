<script setup lang="ts">
import Button from 'primevue/button'
import { onMounted, ref } from 'vue'

import EndAccount from '../account/EndAccount.vue'
import EverythingFile from '../account/EverythingFile.vue'
import IdentityList from '../account/IdentityList.vue'
import PasskeyList from '../account/PasskeyList.vue'
import { momentOf } from '../parts/moments'
import { ask, client, type Refusal, type Schemas } from '../api/client'
import NewPassword from '../parts/NewPassword.vue'
import PageHead from '../parts/PageHead.vue'
import PasswordField from '../parts/PasswordField.vue'
import { useTold } from '../parts/useTold'

/** How a teacher comes in: an address and a password of her own, and the browsers in which she is signed in. */
const account = ref<Schemas['AccountOut'] | null>(null)
const refusal = ref<Refusal | null>(null)
const address = ref('')
const password = ref('')
const now = ref('')
const busy = ref(false)
const tell = useTold()

async function load(): Promise<void> {
  const answer = await ask(client.GET('/api/account'))
  if (!answer.ok) return void (refusal.value = answer.refusal)
  account.value = answer.data
  address.value ||= answer.data.address ?? ''
}

async function keep(): Promise<void> {
  busy.value = true
  const body = { address: address.value, password: password.value, now: account.value?.asks_now ? now.value : null }
  const answer = await ask(client.PUT('/api/account/password', { body }))
  busy.value = false
  if (!answer.ok) return void (refusal.value = answer.refusal)
  // A new page: this browser has a sign-in of its own now.
  window.location.replace('/account#kept')
  window.location.reload()
}

async function end(id: string | null): Promise<void> {
  const answer = id
    ? await ask(client.DELETE('/api/account/sign-ins/{named}', { params: { path: { named: id } } }))
    : await ask(client.DELETE('/api/account/sign-ins'))
  refusal.value = answer.ok ? null : answer.refusal
  await load()
}

async function stay(): Promise<void> {
  const answer = await ask(client.DELETE('/api/account/leaving'))
  refusal.value = answer.ok ? null : answer.refusal
  await load()
}

onMounted(async () => {
  document.title = 'My account · Keen Slate'
  await load()
  if (window.location.hash === '#kept') tell('From now on you sign in by this address and password.')
})
</script>

<template>
  <main class="class account">
    <PageHead title="My account">
      <RouterLink v-if="account?.school" class="word" :to="{ name: 'school' }">{{ account.school }}</RouterLink>
    </PageHead>
    <p v-if="refusal" class="trouble" role="alert">{{ refusal.message }} {{ refusal.hint }}</p>
    <template v-if="account">
      <section v-if="account.leaves_at" class="sheet on-paper" aria-labelledby="leaving">
        <h2 id="leaving">All that is yours goes on {{ momentOf(account.leaves_at) }}</h2>
        <p>You had your account end. Until then you may keep it, with everything in it.</p>
        <Button label="Keep my account" @click="stay" />
      </section>
      <form class="sheet on-paper" @submit.prevent="keep">
        <h2>{{ account.address ? 'How you sign in' : 'A password of your own' }}</h2>
        <p class="quiet">
          {{
            account.address
              ? 'A new password signs all other browsers out.'
              : 'With it you come in from any browser, without a link.'
          }}
        </p>
        <NewPassword v-model:address="address" v-model:password="password">
          <PasswordField v-if="account.asks_now" id="now" v-model="now" label="Present password" />
        </NewPassword>
        <Button type="submit" label="Keep it" :loading="busy" :disabled="!address.trim() || !password" />
      </form>
      <PasskeyList :account="account" @changed="load" />
      <IdentityList
        v-if="account.provider || account.identities.length"
        :account="account"
        :provider="account.provider"
        @changed="load"
      />
      <section class="sheet on-paper" aria-labelledby="where">
        <div class="heading">
          <h2 id="where">Where you are signed in</h2>
          <Button v-if="account.sign_ins.length > 1" class="word all" @click="end(null)">Sign out all others</Button>
        </div>
        <ul class="browsers" tabindex="0" aria-labelledby="where">
          <li v-for="one in account.sign_ins" :key="one.id">
            <span>{{ one.here ? 'This browser' : 'Another one' }}</span>
            <span>{{ one.by_link ? 'by a link' : 'by yourself' }}, since {{ momentOf(one.made_at) }}</span>
            <span class="quiet">{{ one.here ? '' : `last used ${momentOf(one.seen_at)}` }}</span>
            <Button
              v-if="!one.here"
              class="word"
              :aria-label="`Sign out the browser that came in ${momentOf(one.made_at)}`"
              @click="end(one.id)"
            >
              Sign out
            </Button>
          </li>
        </ul>
      </section>
      <section class="sheet on-paper" aria-labelledby="log">
        <h2 id="log">What was done</h2>
        <ol class="log" tabindex="0" aria-labelledby="log">
          <li v-for="(one, i) in account.log" :key="i">
            <span class="quiet">{{ momentOf(one.at) }}</span>
            <span>{{ one.said }}</span>
          </li>
        </ol>
      </section>
      <EverythingFile @brought="load" />
      <EndAccount v-if="!account.leaves_at" :asks-now="account.asks_now" />
    </template>
  </main>
</template>

<style scoped src="../classes/class.css"></style>
<style scoped src="../account/account.css"></style>
<style scoped>
.account {
  max-width: 860px;
}
.heading {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 20px;
  align-items: baseline;
}
.all {
  text-decoration-color: currentColor;
}
.log,
.browsers {
  max-height: 16rem;
  overflow-y: auto;
}
.log li {
  grid-template-columns: 11rem minmax(0, 1fr);
}
@media (max-width: 640px) {
  .log li {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
