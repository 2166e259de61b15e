<script setup lang="ts">
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import Select from 'primevue/select'
import { onMounted } from 'vue'

import ChooseFile from '../parts/ChooseFile.vue'
import limits from '../parts/limits.json'
import PageHead from '../parts/PageHead.vue'
import ThingsTable from '../story/ThingsTable.vue'
import { useScenarioForm } from '../story/useScenarioForm'

const { choices, chosen, form, own, refusal, said, options, show, copy, keep, remove, save, bring, addThing } =
  useScenarioForm()
onMounted(() => (document.title = 'Scenarios · Keen Slate'))
</script>

<template>
  <main class="order">
    <PageHead title="Scenarios for stories" />
    <section class="sheet on-paper">
      <p class="acts">
        <label for="which">Scenario</label>
        <Select
          :model-value="chosen"
          input-id="which"
          :options="options"
          option-label="name"
          option-value="code"
          @update:model-value="show"
        />
        <Button label="Copy it and change the copy" variant="outlined" :disabled="!form" @click="copy" />
        <Button label="Save as a file" variant="outlined" :disabled="!form" @click="save" />
        <ChooseFile
          label="Bring one in"
          accept=".json,application/json"
          hint="A scenario takes a few kB."
          @file="bring"
          @refused="refusal = $event"
        />
      </p>
      <p class="quiet">
        A piece has a size (a plank), stuff fills a place (gravel), a doing is done (walk). From and to say how much of
        it there can be.
      </p>
      <form v-if="form" @submit.prevent="keep">
        <p class="acts">
          <label for="name">Name</label>
          <InputText id="name" v-model="form.name" :maxlength="limits.title" :disabled="!own" />
          <label for="doers">Who does something</label>
          <InputText id="doers" v-model="form.doers" class="wide" :disabled="!own" />
        </p>
        <ThingsTable v-model="form.things" :own="own" :units="choices?.units ?? []" :sizes="choices?.sizes ?? []" />
        <p v-if="own" class="acts">
          <Button label="Add a thing" variant="outlined" @click="addThing" />
          <Button label="Keep this scenario" type="submit" />
          <Button label="Take it away" variant="outlined" @click="remove" />
        </p>
      </form>
      <p role="status" class="quiet">{{ said }}</p>
      <p v-if="refusal" class="refusal" role="alert">{{ refusal.message }} {{ refusal.hint }}</p>
    </section>
  </main>
</template>

<style scoped src="../styles/order.css"></style>
<style scoped>
.wide {
  width: 24rem;
  max-width: 100%;
}
</style>
