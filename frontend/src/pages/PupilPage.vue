<script setup lang="ts">
import Button from 'primevue/button'
import { onMounted, ref, shallowRef } from 'vue'

import { ask, client, type Refusal, type Schemas } from '../api/client'
import { dayOf, kindOf } from '../answers/cells'
import ChanceStrip from '../classes/ChanceStrip.vue'
import FileLink from '../parts/FileLink.vue'
import MathLine from '../parts/MathLine.vue'
import PageHead from '../parts/PageHead.vue'

const props = defineProps<{ classId: string; pupilId: string }>()
const page = shallowRef<Schemas['PupilPage'] | null>(null)
const refusal = ref<Refusal | null>(null)
const params = { path: { class_id: props.classId, pupil_id: props.pupilId } }
const print = () => window.print()

onMounted(async () => {
  const answer = await ask(client.GET('/api/classes/{class_id}/pupils/{pupil_id}/over-time', { params }))
  if (!answer.ok) return void (refusal.value = answer.refusal)
  page.value = answer.data
  document.title = `${answer.data.pupil.alias}, ${answer.data.class_name} · Keen Slate`
})
</script>

<template>
  <main class="class">
    <PageHead
      :title="page?.pupil.alias ?? ''"
      :back="page ? { to: { name: 'class', params: { classId } }, name: page.class_name } : null"
    >
      <span class="gap" />
      <Button class="word" @click="print">Print</Button>
      <FileLink :to="`/api/classes/${classId}/pupils/${pupilId}/pupil.pdf`">One page (PDF)</FileLink>
    </PageHead>
    <p v-if="refusal" class="trouble" role="alert">{{ refusal.message }} {{ refusal.hint }}</p>
    <template v-if="page">
      <section class="sheet on-paper" aria-labelledby="what-next">
        <h2 id="what-next">What comes next</h2>
        <p v-for="one in page.pupil.holds" :key="one.code">
          Ask: “{{ one.question }}” <span class="quiet">({{ one.name }}: {{ one.word }})</span>
        </p>
        <p v-for="pair in page.cannot_tell" :key="pair.join()">
          Cannot be told apart so far: {{ pair.join(' and ') }}.
        </p>
        <p v-if="page.telling.text">This would tell: <MathLine class="telling" :glyphs="page.telling.glyphs" /></p>
        <p v-if="page.unclear">Ask: “Show me how you did this one.” Nothing known here explains much of it.</p>
        <p v-if="page.ready">Nothing stands in the way: {{ page.pupil.alias }} is ready to go on.</p>
        <p v-if="!page.pupil.answered" class="quiet">Nothing has been entered yet.</p>
      </section>
      <section class="sheet on-paper" aria-labelledby="holds">
        <h2 id="holds">
          What {{ page.pupil.alias }} holds
          <span class="quiet">· {{ page.pupil.right }} of {{ page.pupil.answered }} answers right</span>
        </h2>
        <table v-if="page.codes.length">
          <thead>
            <tr>
              <th scope="col">what was done</th>
              <th scope="col">now</th>
              <th scope="col">chances: ● did, ○ did not</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="one in page.codes" :key="one.code">
              <th scope="row">{{ one.name }}</th>
              <td>
                <template v-for="held in page.pupil.holds.filter((held) => held.code === one.code)" :key="held.code"
                  ><strong>{{ held.word }}</strong> ({{ Math.round(100 * held.belief) }} %)</template
                >
                <template v-for="gone in page.pupil.no_longer.filter((gone) => gone.code === one.code)" :key="gone.code"
                  >no longer: last on {{ dayOf(gone.last) }}, {{ gone.chances }} chances since</template
                >
              </td>
              <td><ChanceStrip :chances="one.sittings" each /></td>
            </tr>
          </tbody>
        </table>
        <p v-else class="quiet">Nothing stands out.</p>
      </section>
      <section class="sheet on-paper" aria-labelledby="reached">
        <h2 id="reached">Rungs reached</h2>
        <p v-for="one in page.pupil.reached" :key="one.code">
          {{ one.name }} <span class="quiet">({{ one.code }}), on {{ dayOf(one.on) }}</span>
        </p>
        <p v-if="!page.pupil.reached.length" class="quiet">
          None yet. A rung is reached when its last answers are right on two different days.
        </p>
      </section>
      <section
        v-for="one in page.sittings"
        :key="one.id"
        class="sheet on-paper"
        :aria-label="`${one.title}, ${dayOf(one.day)}`"
      >
        <h2>
          <RouterLink :to="{ name: 'answers', params: { sittingId: one.id } }">{{ one.title }}</RouterLink>
          <span class="quiet"> · {{ kindOf(one.kind) }}, {{ dayOf(one.day) }}</span>
        </h2>
        <ul class="answers">
          <li v-for="(answer, i) in one.answers" :key="i" :data-said="answer.said">
            <MathLine :glyphs="answer.problem" />
            <span class="is">=</span>
            <span class="wrote"><MathLine :glyphs="answer.written" /></span>
            <small>{{ answer.name || answer.said }}</small>
          </li>
        </ul>
      </section>
    </template>
  </main>
</template>

<style scoped src="../classes/class.css"></style>
<style scoped>
h2 .quiet {
  font-weight: 400;
  font-size: 1rem;
}
.answers {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(330px, 100%), 1fr));
  gap: 8px 26px;
}
.answers li {
  font-size: 1.15rem;
  border-top: 1px solid var(--hair);
  padding-top: 4px;
}
.telling {
  font-size: 1.25rem;
  margin-left: 0.4em;
}
.is {
  margin: 0 0.4em;
}
small {
  display: block;
  font-size: 0.9rem;
  color: var(--ink-quiet);
}
[data-said='explained'] small {
  color: var(--role-wrong);
}
@media print {
  .sheet {
    padding: 0;
    break-inside: avoid;
  }
}
</style>
