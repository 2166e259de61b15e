import { vi } from 'vitest'

/** What a stand-in for the server was asked, and under which key. */
export interface Asked {
  method: string
  path: string
  key: string | null
  token: string | null
  body: unknown
}

type Reply = { status?: number; body?: unknown; headers?: Record<string, string> } | 'no answer'

/** Answers requests in the place of the server; each is kept in the list that is handed back. */
export function serve(reply: (asked: Asked) => Reply | Promise<Reply>): Asked[] {
  const asked: Asked[] = []
  vi.stubGlobal('fetch', async (input: Request | string) => {
    const request = typeof input === 'string' ? new Request(new URL(input, 'http://localhost:3000')) : input
    const path = new URL(request.url).pathname
    if (path === '/api/me') return Response.json({ name: 'Teacher', csrf_token: 'token' })
    const text = await request.text()
    const one: Asked = {
      method: request.method,
      path,
      key: request.headers.get('Idempotency-Key'),
      token: request.headers.get('X-CSRF-Token'),
      body: text ? JSON.parse(text) : null,
    }
    asked.push(one)
    const answer = await reply(one)
    if (answer === 'no answer') throw new TypeError('network')
    return Response.json(answer.body ?? {}, { status: answer.status ?? 200, headers: answer.headers })
  })
  return asked
}

/** A promise with its end in hand. */
export function held<T>() {
  let end: (value: T) => void = () => {}
  const promise = new Promise<T>((resolve) => (end = resolve))
  return { promise, end }
}

export const refusal = (message: string) => ({ error: { message, hint: 'Again.', position: 0, length: 0 } })
