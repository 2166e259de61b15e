import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'

import { ask, client } from '../src/api/client'
import { LOST_CHANGE, newKey, NOT_SENT, signedIn, waiting } from '../src/api/send'
import { waitingTexts } from '../src/away/waitingTexts'
import { refusal, serve } from './server'

const change = () => ask(client.POST('/api/sets', { body: { title: 'Planks' } }))

beforeEach(() => {
  vi.useFakeTimers()
  signedIn.value = true
})
afterEach(() => vi.useRealTimers())

describe('a change', () => {
  it('carries the token of the session and a key of its own', async () => {
    const asked = serve(() => ({ status: 201 }))
    await change()
    await change()
    expect(asked.map((one) => one.token)).toEqual(['token', 'token'])
    expect(asked[0]?.key).toMatch(/^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/)
    expect(asked[0]?.key).not.toBe(asked[1]?.key)
  })

  it('is sent again under the same key where no answer came, and then once more', async () => {
    let tries = 0
    const asked = serve(() => (++tries < 3 ? 'no answer' : { status: 201, body: { id: 'made' } }))
    const answer = change()
    await vi.runAllTimersAsync()
    expect((await answer).ok).toBe(true)
    expect(asked).toHaveLength(3)
    expect(new Set(asked.map((one) => one.key)).size).toBe(1)
  })

  it('is sent again where a proxy says that it cannot reach the server, and refused where the server itself says so', async () => {
    let tries = 0
    const proxys = { status: 502, headers: { 'Content-Type': 'text/html' } }
    const asked = serve(() => (++tries < 3 ? proxys : { status: 201, body: { id: 'made' } }))
    const answer = change()
    await vi.runAllTimersAsync()
    expect((await answer).ok).toBe(true)
    expect([asked.length, new Set(asked.map((one) => one.key)).size]).toEqual([3, 1])
    const own = serve(() => ({ status: 503, body: refusal('The records cannot be reached.') }))
    expect(await change()).toMatchObject({ ok: false, status: 503 })
    expect(own).toHaveLength(1)
  })

  it('that never gets an answer may have been made, and that is said', async () => {
    serve(() => 'no answer')
    const answer = change()
    await vi.runAllTimersAsync()
    expect(await answer).toMatchObject({ ok: false, status: 0, refusal: LOST_CHANGE })
  })
})

it('a change that comes while the server is known to be away is not sent, and that is said', async () => {
  let gone = true
  const asked = serve(() => (gone ? 'no answer' : { status: 201 }))
  const first = change()
  await vi.runAllTimersAsync()
  await first
  const before = asked.length
  expect(await change()).toMatchObject({ ok: false, status: 0, refusal: NOT_SENT })
  expect(asked.slice(before).map((one) => one.path)).toEqual(['/healthz'])
  gone = false
  expect((await change()).ok).toBe(true)
})

it('what waits is listed in words', () => {
  localStorage.setItem('keen-slate-change s k1', JSON.stringify({ method: 'POST', body: '{"source":"1/2 + <b>"}' }))
  localStorage.setItem('keen-slate-change s k2', JSON.stringify({ method: 'DELETE', body: '' }))
  localStorage.setItem('keen-slate-answer s p 0', JSON.stringify({ written: '4 7/12' }))
  localStorage.setItem('another', 'text')
  expect(waitingTexts(localStorage).sort()).toEqual(['a change of a set', 'an answer: 4 7/12', 'for a set: 1/2 + <b>'])
})

describe('who has to wait', () => {
  it('is told so, and asks again until it is her turn', async () => {
    let tries = 0
    const told = { status: 503, body: { ...refusal('Two others are at work.'), waiting: true } }
    serve(() => (++tries === 1 ? { ...told, headers: { 'Retry-After': '2' } } : { body: { sets: [] } }))
    const answer = ask(client.GET('/api/sets'))
    await vi.advanceTimersByTimeAsync(1000)
    expect(waiting.value).toBe('Two others are at work. Again.')
    await vi.advanceTimersByTimeAsync(1500)
    expect((await answer).ok).toBe(true)
    expect(waiting.value).toBeNull()
  })

  it('gets a refusal that is no turn to wait for at once', async () => {
    const asked = serve(() => ({ status: 503, body: refusal('The records cannot be reached.') }))
    expect(await ask(client.GET('/api/sets'))).toMatchObject({ ok: false, status: 503 })
    expect(asked).toHaveLength(1)
  })
})

it('a session that has ended is noticed', async () => {
  serve(() => ({ status: 401, body: refusal('Come in by a link.') }))
  await ask(client.GET('/api/sets'))
  expect(signedIn.value).toBe(false)
})

it('a token that is refused is fetched anew', async () => {
  let refused = true
  const asked = serve(() => (refused ? { status: 403, body: refusal('Old token.') } : { status: 201 }))
  await change()
  refused = false
  expect((await change()).ok).toBe(true)
  expect(asked).toHaveLength(2)
})

it('keys are not repeated', () => {
  expect(new Set(Array.from({ length: 500 }, newKey)).size).toBe(500)
})
