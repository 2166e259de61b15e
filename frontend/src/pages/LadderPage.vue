<script setup lang="ts">
import Button from 'primevue/button'
import ProgressBar from 'primevue/progressbar'
import { computed, onMounted } from 'vue'
import { useRouter } from 'vue-router'

import type { LadderProblem } from '../api/client'
import LadderLimits from '../ladder/LadderLimits.vue'
import LadderProblems from '../ladder/LadderProblems.vue'
import LadderSpan from '../ladder/LadderSpan.vue'
import LadderStair from '../ladder/LadderStair.vue'
import LadderTargets from '../ladder/LadderTargets.vue'
import LadderTrouble from '../ladder/LadderTrouble.vue'
import { putOnLadder } from '../ladder/putOnLadder'
import { useLadder } from '../ladder/useLadder'
import PageHead from '../parts/PageHead.vue'

const props = defineProps<{ setId: string }>()
const router = useRouter()
const { choices, wish, ladder, smallest, locked, refusal, busy, total, another, swap, span, takeNearest, fewest } =
  useLadder(props.setId)

const there = computed(() => Object.values(ladder.value?.counts ?? {}).reduce((sum, n) => sum + n, 0))
const left = computed(() =>
  ladder.value ? `${ladder.value.exact ? '' : 'at most '}${there.value.toLocaleString('en')} problems` : '…',
)

async function take(taken: LadderProblem[]): Promise<void> {
  const texts = taken.map((one) => one.text)
  const targets = taken.map((one) => one.target)
  refusal.value = await putOnLadder(props.setId, texts, targets)
  if (!refusal.value) await router.push({ name: 'bench', params: { setId: props.setId } })
}

onMounted(() => (document.title = 'Build to order · Keen Slate'))
</script>

<template>
  <main class="order">
    <PageHead title="A ladder built to order" :back="{ to: { name: 'bench', params: { setId } }, name: 'Bench' }" />
    <div v-if="choices" class="desk">
      <form class="wish" @submit.prevent>
        <LadderStair v-model="wish.rungs" :rungs="choices.rungs" :counts="ladder?.counts ?? {}" />
        <details>
          <summary>Draw it from one rung to another</summary>
          <LadderSpan :rungs="choices.rungs" @span="span" />
        </details>
        <LadderLimits v-model="wish" :choices="choices" :left="left" />
        <LadderTargets v-model="wish" :targets="choices.targets" />
      </form>
      <section class="sheet on-paper ruled" aria-label="The ladder" :aria-busy="busy">
        <p class="count" role="status">
          <template v-if="ladder">
            {{ ladder.exact ? '' : 'At most ' }}<strong>{{ there.toLocaleString('en') }}</strong> problems satisfy the
            limits, of {{ ladder.considered.toLocaleString('en') }} looked at<template v-if="ladder.sampled"
              >; there are more than could be looked at</template
            >.
          </template>
          <template v-else-if="!total">Add a step on the left: its problems appear here.</template>
        </p>
        <ProgressBar class="busy" :class="{ idle: !busy }" mode="indeterminate" aria-label="Building" />
        <Button v-if="wish.targets.length" class="word" @click="fewest">
          The fewest that show and separate {{ wish.targets.length === 1 ? 'it' : 'them' }}
        </Button>
        <p v-if="refusal" class="refusal" role="alert">{{ refusal.message }} {{ refusal.hint }}</p>
        <LadderTrouble v-if="ladder" :ladder="ladder" :choices="choices" @nearest="takeNearest" />
        <LadderProblems
          v-if="ladder && !ladder.impossible"
          v-model:locked="locked"
          :problems="ladder.problems"
          :targets="choices.targets"
          :not-separated="ladder.not_separated"
          @swap="swap"
          @take="take(ladder.problems)"
          @another="another"
        />
        <template v-if="smallest">
          <LadderProblems
            :problems="smallest.problems"
            :targets="choices.targets"
            :not-separated="smallest.not_separated"
            @take="take(smallest.problems)"
          />
          <p class="quiet">
            {{
              smallest.proven
                ? 'No fewer problems of two terms show and separate them: proven.'
                : 'Whether fewer would do was not proven.'
            }}
            <template v-if="smallest.ended_early">After ten seconds the search was ended. </template
            >{{ smallest.candidates.toLocaleString('en') }} problems were worked to find them.
          </p>
        </template>
      </section>
    </div>
    <p v-else-if="refusal" role="alert">{{ refusal.message }} {{ refusal.hint }}</p>
  </main>
</template>

<style scoped src="../styles/order.css"></style>
<style scoped>
.wish {
  display: grid;
  gap: 14px;
}
.sheet {
  position: sticky;
  top: 12px;
}
.busy.idle {
  visibility: hidden;
}
.sheet .word {
  text-decoration-color: currentColor;
}
.quiet {
  padding-top: 8px;
}
@media (max-width: 900px) {
  .sheet {
    position: static;
  }
}
</style>
