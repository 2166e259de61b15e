import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'

import { useBench } from '../src/stores/bench'
import { usePaper } from '../src/stores/paper'
import { useWays } from '../src/stores/ways'
import { held, refusal, serve } from './server'

const set = (version: number, words: Record<string, string> = {}, examples: object[] = []) => ({
  id: 's',
  title: 'Planks',
  version,
  examples,
  words,
  ways: {},
  changed_at: '2026-03-02T08:00:00Z',
})

beforeEach(() => {
  setActivePinia(createPinia())
  localStorage.clear()
  vi.useFakeTimers()
})
afterEach(() => vi.useRealTimers())

describe('the Bench', () => {
  async function opened(reply: Parameters<typeof serve>[0]) {
    const asked = serve((one) => (one.method === 'GET' ? { body: set(3) } : reply(one)))
    const bench = useBench()
    await bench.open('s')
    return { bench, asked: () => asked.filter((one) => one.method !== 'GET') }
  }

  it('makes one change after the other, each on the version that the one before it left', async () => {
    let version = 3
    const first = held<void>()
    const { bench, asked } = await opened(async () => {
      if (version === 3) await first.promise
      return { body: set(++version) }
    })
    const both = [bench.changeSet({ note: 'a' }), bench.changeSet({ note: 'b' })]
    await vi.advanceTimersByTimeAsync(10)
    expect(asked()).toHaveLength(1)
    expect(bench.saving).toBe('saving')
    first.end()
    expect(await Promise.all(both)).toEqual([true, true])
    expect(asked().map((one) => one.body)).toEqual([
      { version: 3, note: 'a' },
      { version: 4, note: 'b' },
    ])
    expect([bench.saving, bench.set?.version]).toEqual(['saved', 5])
  })

  it('has a sentence put into the words that are there, and taken out again', async () => {
    let words = {}
    let version = 3
    const { bench, asked } = await opened((one) => {
      words = (one.body as { words: object }).words
      return { body: set(++version, words) }
    })
    await bench.rewordSet('regroup', 'Open a plank.')
    await bench.rewordSet('join', 'Put it together.')
    await bench.rewordSet('regroup', '')
    expect(asked().map((one) => (one.body as { words: object }).words)).toEqual([
      { regroup: 'Open a plank.' },
      { regroup: 'Open a plank.', join: 'Put it together.' },
      { join: 'Put it together.' },
    ])
  })

  it('offers the choice where another tab was first, and makes the change anew on its version', async () => {
    let stale = true
    const { bench, asked } = await opened(() =>
      stale ? { status: 409, body: { ...refusal('Changed elsewhere.'), set: set(7) } } : { body: set(8) },
    )
    expect(await bench.changeSet({ note: 'mine' })).toBe(false)
    expect([bench.saving, bench.conflict?.version]).toEqual(['not saved', 7])
    stale = false
    await bench.settle(true)
    expect(asked().map((one) => one.body)).toEqual([
      { version: 3, note: 'mine' },
      { version: 7, note: 'mine' },
    ])
    expect(asked()[0]?.key).not.toBe(asked()[1]?.key)
    expect([bench.saving, bench.set?.version, bench.conflict]).toEqual(['saved', 8, null])
  })

  it('takes the other version where that is chosen, and makes nothing', async () => {
    const { bench, asked } = await opened(() => ({ status: 409, body: { ...refusal('Changed.'), set: set(7) } }))
    await bench.changeSet({ note: 'mine' })
    await bench.settle(false)
    expect([bench.saving, bench.set?.version, asked().length]).toEqual(['saved', 7, 1])
  })

  it('sends a change that was not answered again by itself, under its own key', async () => {
    let lost = true
    const { bench, asked } = await opened(() => (lost ? { status: 502, body: refusal('Gone.') } : { body: set(4) }))
    const made = bench.changeSet({ note: 'mine' })
    await vi.advanceTimersByTimeAsync(50)
    expect([bench.saving, bench.trouble?.message, localStorage.length]).toEqual(['not saved', 'Gone.', 1])
    lost = false
    await vi.advanceTimersByTimeAsync(2500)
    expect(await made).toBe(true)
    expect(new Set(asked().map((one) => one.key)).size).toBe(1)
    expect([bench.saving, bench.trouble, localStorage.length]).toEqual(['saved', null, 0])
  })

  it('tries at once where that is asked for', async () => {
    let lost = true
    const { bench } = await opened(() => (lost ? { status: 502, body: refusal('Gone.') } : { body: set(4) }))
    const made = bench.changeSet({ note: 'mine' })
    await vi.advanceTimersByTimeAsync(50)
    lost = false
    await bench.tryAgain()
    await vi.advanceTimersByTimeAsync(50)
    expect(await made).toBe(true)
  })

  it('keeps what was not answered over a reload: what was sent goes out as it was, what waited behind it on the new version', async () => {
    const first = await opened(() => ({ status: 502, body: refusal('Gone.') }))
    void first.bench.changeSet({ note: 'sent' })
    await vi.advanceTimersByTimeAsync(50)
    void first.bench.changeSet({ title: 'waits' })
    await vi.advanceTimersByTimeAsync(50)
    const [sent] = first.asked()
    expect(localStorage.length).toBe(2)
    setActivePinia(createPinia()) // the page is loaded again
    let version = 6
    const second = await opened(() => ({ body: set(++version) }))
    await vi.advanceTimersByTimeAsync(50)
    expect(second.asked().map((one) => one.body)).toEqual([
      { version: 3, note: 'sent' },
      { version: 7, title: 'waits' },
    ])
    expect(second.asked()[0]).toMatchObject({ key: sent!.key, method: 'PATCH', path: '/api/sets/s' })
    expect([second.bench.saving, localStorage.length]).toEqual(['saved', 0])
  })

  it('sends nothing of a set to another one that is opened meanwhile', async () => {
    const { bench, asked } = await opened(() => ({ status: 502, body: refusal('Gone.') }))
    void bench.changeSet({ note: 'mine' })
    await vi.advanceTimersByTimeAsync(50)
    serve(() => ({ body: { ...set(9), id: 'other' } }))
    await bench.open('other')
    const before = asked().length
    await vi.advanceTimersByTimeAsync(5000)
    expect([asked().length, bench.set?.id, localStorage.length]).toEqual([before, 'other', 1])
  })

  it('hands a refused text back to the entry line and stays saved', async () => {
    const { bench } = await opened(() => ({ status: 422, body: refusal('The denominator is 0.') }))
    expect((await bench.add('1/0'))?.message).toBe('The denominator is 0.')
    expect(bench.saving).toBe('saved')
  })

  it('gives points, and none for an empty field', async () => {
    const given: unknown[] = []
    const example = { id: 'e', marks: { 'add 0': 2 }, words: {}, unreadable: 'x' }
    serve((one) => {
      if (one.method === 'GET') return { body: set(3, {}, [example]) }
      given.push((one.body as { marks: object }).marks)
      return { body: { set: set(4, {}, [example]), example: { id: 'e' } } }
    })
    const bench = useBench()
    await bench.open('s')
    const paper = usePaper()
    await paper.choose('e')
    for (const points of [4, null]) await paper.give('answer', points)
    expect(given.map((marks) => (marks as { answer: number }).answer)).toEqual([4, 0])
    expect(given[0]).toHaveProperty('add 0', 2)
  })
})

describe('the ways', () => {
  const ways = (version: number, house: object = {}) => ({ settings: [], house, version, undo: null, redo: null })

  it('are loaded once, and again where they may have changed', async () => {
    const asked = serve(() => ({ body: ways(1) }))
    const store = useWays()
    await store.load()
    await store.load()
    await store.load(true)
    expect(asked).toHaveLength(2)
  })

  it('put my choice on top of the other tab’s where I say so', async () => {
    let stale = true
    const asked = serve((one) => {
      if (one.method === 'GET') return { body: ways(1) }
      if (stale) return { status: 409, body: { ...refusal('Changed.'), ways: ways(4, { ties: 'up' }) } }
      return { body: ways(5, { ties: 'down' }) }
    })
    const store = useWays()
    await store.load()
    expect(await store.choose({ ties: 'down' })).toBe(false)
    expect(store.conflict?.theirs.version).toBe(4)
    stale = false
    expect(await store.settle(true)).toBe(true)
    expect(asked.at(-1)?.body).toEqual({ house: { ties: 'down' }, version: 4 })
    expect(store.house).toEqual({ ties: 'down' })
  })
})
