<script setup lang="ts">
import Button from 'primevue/button'
import Dialog from 'primevue/dialog'
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'

import { ask, client, type ExampleSummary, type Refusal, type Standard } from '../api/client'
import KeptField from '../parts/KeptField.vue'
import MathLine from '../parts/MathLine.vue'
import { useBench } from '../stores/bench'

const visible = defineModel<boolean>('visible', { required: true })
const bench = useBench()
const router = useRouter()
const standards = ref<Standard[]>([])
const all = ref(false)
const versions = ref<{ id: string; title: string }[]>([])
const same = ref(0) // problems of the versions for which no other was found
const refusal = ref<Refusal | null>(null)
const shown = computed(() =>
  standards.value.filter((one) => all.value || one.serves || bench.set?.standards.includes(one.code)),
)

watch(visible, async (open) => {
  if (!open || !bench.set) return
  versions.value = []
  refusal.value = null
  const answer = await ask(client.GET('/api/sets/{set_id}/standards', { params: { path: { set_id: bench.set.id } } }))
  if (answer.ok) standards.value = answer.data.standards
})

async function serve(code: string): Promise<void> {
  await bench.changeSet(({ standards: now }) => ({
    standards: now.includes(code) ? now.filter((one) => one !== code) : [...now, code],
  }))
}

/** Every choice of how much of an example pupils fill in, as said to the teacher. */
function choices(item: ExampleSummary): { hide: number; said: string }[] {
  return Array.from({ length: item.steps + 1 }, (_, hide) => ({
    hide,
    said:
      hide === 0
        ? 'full'
        : hide === item.steps
          ? 'problem only'
          : hide === 1
            ? 'last step blank'
            : `last ${hide} steps blank`,
  }))
}

const origin = location.origin
const text = (event: Event) => (event.target as HTMLSelectElement).value

async function fadeAll(plan: boolean): Promise<void> {
  await bench.fade(Object.fromEntries(bench.examples.map((item) => [item.id, plan ? item.planned_hide : 0])))
}

async function makeVersions(count: number): Promise<void> {
  if (!bench.set) return
  const body = { count, seed: Math.floor(Math.random() * 2 ** 31) }
  const answer = await ask(
    client.POST('/api/sets/{set_id}/versions', { params: { path: { set_id: bench.set.id } }, body }),
  )
  if (answer.ok) {
    versions.value = answer.data.sets
    same.value = answer.data.same
  }
  refusal.value = answer.ok ? null : answer.refusal
}

async function duplicate(): Promise<void> {
  if (!bench.set) return
  const title = `${bench.set.title.slice(0, 110)}, copy`
  const answer = await ask(
    client.POST('/api/sets/{set_id}/copies', { params: { path: { set_id: bench.set.id } }, body: { title } }),
  )
  if (!answer.ok) return void (refusal.value = answer.refusal)
  visible.value = false
  await router.push({ name: 'bench', params: { setId: answer.data.id } })
}
</script>

<template>
  <Dialog
    v-model:visible="visible"
    header="The set"
    position="right"
    :modal="false"
    :draggable="false"
    :closable="false"
    class="set-panel"
  >
    <div v-if="bench.set" class="whole">
      <p v-if="refusal" class="refusal" role="alert">{{ refusal.message }} {{ refusal.hint }}</p>
      <label class="field"
        >What it is for
        <KeptField :value="bench.set.objective" @save="bench.changeSet({ objective: $event })" />
      </label>
      <fieldset>
        <legend>Published standards it serves</legend>
        <label v-for="one in shown" :key="one.code" class="standard">
          <input type="checkbox" :checked="bench.set.standards.includes(one.code)" @change="serve(one.code)" />
          <span
            ><strong>{{ one.code }}</strong> {{ one.words }}</span
          >
        </label>
        <button class="word" @click="all = !all">{{ all ? 'Only those its rungs serve' : 'All standards' }}</button>
      </fieldset>
      <label class="field"
        >Note
        <KeptField long :value="bench.set.note" rows="2" @save="bench.changeSet({ note: $event })" />
      </label>
      <p class="lesson">
        <label
          >Minutes of the lesson
          <KeptField
            type="number"
            min="0"
            max="600"
            :value="bench.set.lesson_minutes ?? ''"
            @save="bench.changeSet({ lesson_minutes: Math.round(Number($event)) || 0 })"
          />
        </label>
        planned: about {{ Math.max(1, Math.round(bench.set.seconds / 60)) }}
      </p>
      <h2>What pupils fill in</h2>
      <table>
        <tbody>
          <tr v-for="item in bench.examples" :key="item.id">
            <th scope="row"><MathLine :glyphs="item.glyphs" :spoken="item.spoken" /></th>
            <td>
              <select
                :value="Math.min(item.fading.hide, item.steps)"
                :aria-label="`What pupils fill in of ${item.text}`"
                @change="bench.fade({ [item.id]: Number(text($event)) })"
              >
                <option v-for="choice in choices(item)" :key="choice.hide" :value="choice.hide">
                  {{ choice.said }}
                </option>
              </select>
            </td>
            <td class="quiet">{{ item.points }} {{ item.points === 1 ? 'mark' : 'marks' }}</td>
          </tr>
        </tbody>
      </table>
      <p class="words">
        <button class="word" @click="fadeAll(true)">Fade step by step</button>
        <button class="word" @click="fadeAll(false)">All in full</button>
      </p>
      <h2>Versions with other numbers</h2>
      <p class="words">
        <button class="word" @click="makeVersions(1)">Make a version B</button>
        <button class="word" @click="makeVersions(2)">Make B and C</button>
        <button class="word" @click="duplicate">Duplicate the set</button>
      </p>
      <p v-if="versions.length" role="status">
        On the Shelf now:
        <template v-for="one in versions" :key="one.id"
          ><RouterLink :to="{ name: 'bench', params: { setId: one.id } }" @click="visible = false">{{
            one.title
          }}</RouterLink
          >{{ ' ' }}</template
        >
        <template v-if="same">{{
          same === 1
            ? 'For one problem no other was found: it is the same.'
            : `For ${same} problems no others were found: they are the same.`
        }}</template>
      </p>
      <h2>As files</h2>
      <p class="words">
        <a class="word" :href="`/api/sets/${bench.set.id}/set.json`" download>The set (JSON)</a>
        <a class="word" :href="`/api/sets/${bench.set.id}/problems.csv`" download>Problems and answers (CSV)</a>
        <a class="word" :href="`/api/sets/${bench.set.id}/problems.tsv`" download>The same, with tabs (TSV)</a>
        <a class="word" :href="`/api/sets/${bench.set.id}/problems.xlsx`" download>The same for a spreadsheet (XLSX)</a>
        <a class="word" :href="`/api/sets/${bench.set.id}/set.html`" download>A page to read (HTML)</a>
        <a class="word" :href="`/api/sets/${bench.set.id}/set.docx`" download>A text with equations (DOCX)</a>
        <a class="word" :href="`/api/sets/${bench.set.id}/set.odt`" download>A text with formulas (ODT)</a>
        <a class="word" :href="`/api/sets/${bench.set.id}/set.md`" download>Text to paste (Markdown)</a>
        <a class="word" :href="`/api/sets/${bench.set.id}/qti.zip`" download>Items for a test (QTI 3.0)</a>
        <a class="word" :href="`/api/sets/${bench.set.id}/qti.zip?version=2.1`" download>The same in QTI 2.1</a>
        <a class="word" :href="`/api/sets/${bench.set.id}/qti.zip?to_choose=true`" download
          >The same with four options</a
        >
      </p>
      <h2>A link to show</h2>
      <p v-if="bench.set.show_address">
        Whoever has this address may read the set:
        <a :href="bench.set.show_address" target="_blank" rel="noopener" class="address">{{
          origin + bench.set.show_address
        }}</a>
        <button class="word" @click="bench.show(false)">Withdraw it</button>
      </p>
      <p v-else class="words"><button class="word" @click="bench.show(true)">Make a link</button></p>
      <Button label="Done" @click="visible = false" />
    </div>
  </Dialog>
</template>

<style scoped>
.whole {
  width: min(30rem, 84vw);
  display: grid;
  gap: 0.7rem;
  justify-items: start;
}
.field {
  display: grid;
  width: 100%;
}
select {
  font: inherit;
  color: var(--ink);
  background: #fff;
  border: 1px solid #8496a0;
  border-radius: 2px;
  padding: 2px 6px;
}
select:focus-visible {
  outline: 3px solid var(--focus-on-paper);
}
fieldset {
  border: 0;
  padding: 0;
  margin: 0;
}
legend {
  padding: 0;
}
.standard {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 8px;
  align-items: start;
  font-size: 0.95rem;
  padding: 2px 0;
}
h2 {
  font-size: 1.02rem;
}
table {
  border-collapse: collapse;
}
th {
  text-align: left;
  font-weight: 400;
  padding: 3px 14px 3px 0;
}
.quiet {
  color: var(--ink-quiet);
  padding-left: 12px;
  font-size: 0.92rem;
}
.words {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
}
.words .word,
fieldset .word {
  text-decoration: underline;
  text-underline-offset: 4px;
  padding: 2px 0;
}
.address {
  overflow-wrap: anywhere;
}
.refusal {
  color: var(--role-wrong);
}
</style>
