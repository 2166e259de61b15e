import { ask, client, type LadderProblem, type Refusal } from '../api/client'

type Target = LadderProblem['target']

/** Problems with their targets put at the end of a set, as it is now; why not, where it is refused. */
export async function putOnLadder(setId: string, problems: string[], targets: Target[] = []): Promise<Refusal | null> {
  const path = { set_id: setId }
  const now = await ask(client.GET('/api/sets/{set_id}', { params: { path } }))
  if (!now.ok) return now.refusal
  const body = { version: now.data.version, problems, targets, position: null }
  const answer = await ask(client.POST('/api/sets/{set_id}/problems', { params: { path }, body }))
  return answer.ok ? null : answer.refusal
}
