import { useDebounceFn } from '@vueuse/core'
import { computed, reactive, ref, shallowRef, watch } from 'vue'

import { client, type Refusal, type Schemas, type Story } from '../api/client'
import { useLatest } from '../api/useLatest'

const PAUSE = 180 // milliseconds

/** What stands in the braces of a story, part by part. */
export interface Parts {
  situation: string
  unknown: string
  calculation: string
  unneeded: string[]
  says: string
}

/**
 * How the server reads the text of a story while it is written. *parts* follow the reading until the teacher corrects one of them:
 * from then on they are hers, and the text is read with them.
 */
export function useStoryReading(ways: () => Record<string, string>) {
  const text = ref('')
  const parts = reactive<Parts>(empty())
  const corrected = ref(false)
  const read = shallowRef<Schemas['StoryReadOut'] | null>(null)
  const failed = ref<Refusal | null>(null)
  const { latest, drop } = useLatest()

  const story = computed<Story | null>(() => read.value?.readings[0] ?? null)
  const refusal = computed(() => failed.value ?? read.value?.refusal ?? null)
  const certain = computed(() => !!read.value?.certain)
  const source = computed(() => (corrected.value ? `${text.value.trim()} {${braces()}}` : text.value.trim()))

  function braces(): string {
    const said = [`${parts.situation} ${parts.unknown}: ${parts.calculation}`]
    said.push(...parts.unneeded.map((number) => `not ${number}`))
    if (parts.says.trim()) said.push(`says ${parts.says.trim()}`)
    return said.join('; ')
  }

  /** Begin with a story that is written already, or with nothing. */
  function begin(from: string, known: Story | null): void {
    text.value = known ? known.text : from
    corrected.value = !!known
    Object.assign(parts, known ? partsOf(known) : empty())
    void look()
  }

  function take(reading: Story): void {
    Object.assign(parts, partsOf(reading))
    corrected.value = true
    void look()
  }

  /** A part was corrected by hand. */
  function correct(change: Partial<Parts>): void {
    Object.assign(parts, change)
    corrected.value = true
    void soon()
  }

  /** Let the text speak for itself again. */
  function readAnew(): void {
    corrected.value = false
    void look()
  }

  const soon = useDebounceFn(look, PAUSE)

  async function look(): Promise<void> {
    if (!text.value.trim()) {
      drop()
      read.value = null
      return
    }
    const body = { text: source.value, ways: ways() }
    const answer = await latest((signal) => client.POST('/api/stories/read', { body, signal }))
    if (!answer) return
    failed.value = answer.ok ? null : answer.refusal
    read.value = answer.ok ? answer.data : null
    if (!corrected.value) Object.assign(parts, story.value && certain.value ? partsOf(story.value) : empty())
  }

  watch(text, soon)

  return { text, parts, corrected, read, story, refusal, certain, source, begin, take, correct, readAnew }
}

function empty(): Parts {
  return { situation: 'put-together', unknown: 'total', calculation: '', unneeded: [], says: '' }
}

function partsOf(story: Story): Parts {
  return {
    situation: story.situation,
    unknown: story.unknown,
    calculation: story.calculations.map((one) => one.told).join('; '),
    unneeded: story.quantities.filter((one) => !one.needed).map((one) => one.number),
    says: story.sentence,
  }
}
