import { defineStore } from 'pinia'
import { computed, ref } from 'vue'

import { type Answer, ask, client, type Refusal, type Schemas } from '../api/client'
import { newKey, under } from '../api/send'
import { oneAtATime } from '../parts/oneAtATime'

type Ways = Schemas['WaysOut']
type Chosen = Record<string, string>

/**
 * The ways for all sets: every setting with its choices, what is chosen, its own undo, and the choice where two
 * changed them.
 */
export const useWays = defineStore('ways', () => {
  const ways = ref<Ways | null>(null)
  const trouble = ref<Refusal | null>(null)
  const conflict = ref<{ theirs: Ways; mine: Chosen } | null>(null)
  const inTurn = oneAtATime()

  const settings = computed(() => ways.value?.settings ?? [])
  /** The layouts that a working can have, by code and name. */
  const layouts = computed(() => settings.value.find((one) => one.name === 'layout')?.codes ?? [])
  const house = computed(() => ways.value?.house ?? {})
  const school = computed(() => ways.value?.school ?? {})

  /** Ask for the ways; the settings themselves never change, so *again* is needed only for what is chosen. */
  async function load(again = false): Promise<void> {
    if (ways.value && !again) return
    const answer = await ask(client.GET('/api/ways'))
    if (answer.ok) ways.value = answer.data
    else trouble.value = answer.refusal
  }

  /** Make one change after the other: two at once would be made on the same version. True where it was made. */
  function make(
    change: (version: number, sent: ReturnType<typeof under>) => Promise<Answer<Ways>>,
    mine?: Chosen,
  ): Promise<boolean> {
    return inTurn(async () => {
      const answer = await change(ways.value?.version ?? 0, under(newKey()))
      trouble.value = null
      if (answer.ok) ways.value = answer.data
      else if (answer.status === 409)
        conflict.value = { theirs: (answer.body as { ways: Ways }).ways, mine: mine ?? house.value }
      else trouble.value = answer.refusal
      return answer.ok
    })
  }

  const choose = (chosen: Chosen) =>
    make((version, sent) => ask(client.PUT('/api/ways', { body: { house: chosen, version }, ...sent })), chosen)
  const undo = () => make((version, sent) => ask(client.POST('/api/ways/undo', { body: { version }, ...sent })))
  const redo = () => make((version, sent) => ask(client.POST('/api/ways/redo', { body: { version }, ...sent })))

  /** The other tab's ways, or mine in their place. */
  async function settle(keepMine: boolean): Promise<boolean> {
    const choice = conflict.value
    conflict.value = null
    if (!choice) return false
    ways.value = choice.theirs
    return keepMine ? choose(choice.mine) : true
  }

  return { ways, settings, layouts, house, school, trouble, conflict, load, choose, undo, redo, settle }
})
