import { type Answer, ask } from '../api/client'
import { type Outgoing, outgoing, send } from '../api/send'
import type { Change, Made } from './bench'

const START = 'keen-slate-change'
/**
 * *sent* says that it may have been made: it must go out again as it was, for the server knows it by its key and its
 * words.
 */
type Kept = Outgoing & { at: number; sent: boolean }

/**
 * Changes of a set that no answer came to, kept in the browser under their keys: a reload, or a browser that ends, loses
 * none, and the server makes each once.
 */
export function unsentOf(setId: string) {
  const place = (key: string) => `${START} ${setId} ${key}`

  function keep(key: string, wasSent: boolean): void {
    const now = outgoing.get(key)
    const before = JSON.parse(localStorage.getItem(place(key)) ?? 'null') as Kept | null
    if (!now && !before) return
    const sent = wasSent || !!before?.sent
    localStorage.setItem(place(key), JSON.stringify({ at: Date.now(), ...now, ...before, sent } as Kept))
  }

  function taken(key: string): void {
    outgoing.delete(key)
    localStorage.removeItem(place(key))
  }

  /** What waits, the oldest first, each to be made on the version that the set has by then. */
  function all(): { key: string; change: Change }[] {
    return Object.keys(localStorage)
      .filter((name) => name.startsWith(`${START} ${setId} `))
      .map((name) => ({ key: name.split(' ')[2]!, kept: JSON.parse(localStorage.getItem(name)!) as Kept }))
      .sort((one, other) => one.kept.at - other.kept.at)
      .map(({ key, kept }) => ({ key, change: (version, sent) => made(kept, version, sent.headers) }))
  }

  return { keep, taken, all }
}

async function made(kept: Kept, version: number, headers: Record<string, string>): Promise<Answer<Made>> {
  const request = kept.sent ? kept : onVersion(kept, version)
  const body = request.body || null
  const asJson = { ...headers, 'Content-Type': 'application/json' }
  const answer = await ask<Made | Made['set']>(
    sentAs(new Request(request.path, { method: request.method, headers: asJson, body })),
  )
  if (!answer.ok) return answer
  return { ok: true, data: 'set' in answer.data ? answer.data : { set: answer.data } }
}

function onVersion(kept: Kept, version: number): Kept {
  const path = kept.path.replace(/([?&]version=)\d+/, `$1${version}`)
  const said = kept.body ? (JSON.parse(kept.body) as object) : null
  return { ...kept, path, body: said && 'version' in said ? JSON.stringify({ ...said, version }) : kept.body }
}

async function sentAs(request: Request): Promise<{ data?: Made | Made['set']; error?: unknown; response: Response }> {
  const response = await send(request)
  const said: unknown = await response.json().catch(() => null)
  return response.ok ? { data: said as Made, response } : { error: said, response }
}
