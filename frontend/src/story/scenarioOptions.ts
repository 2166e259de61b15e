import type { StoryChoices } from '../api/client'

/** The scenarios to choose from, by their names; which are one's own is said. */
export function scenarioOptions(choices: StoryChoices | null): { code: string; name: string }[] {
  return (choices?.scenarios ?? []).map((one) => ({
    code: String(one.document.code),
    name: `${one.document.name}${one.own ? ' (yours)' : ''}`,
  }))
}
