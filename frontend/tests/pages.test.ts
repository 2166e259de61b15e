import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { createPinia, setActivePinia } from 'pinia'
import { createApp, nextTick } from 'vue'

import { useSitting } from '../src/answers/useSitting'
import { useBuildingShow } from '../src/building/useBuildingShow'
import { client } from '../src/api/client'
import { useNewest } from '../src/api/useNewest'
import { useLadder } from '../src/ladder/useLadder'
import { emptyWish, slotsOf, wishAsSpec, withNearest } from '../src/ladder/wish'
import { useWallShow } from '../src/wall/useWallShow'
import { type Asked, held, refusal, serve } from './server'

vi.mock('vue-router', () => ({ useRouter: () => ({ replace: () => Promise.resolve() }) }))

beforeEach(() => {
  vi.useFakeTimers()
  localStorage.clear()
  setActivePinia(createPinia())
})
afterEach(() => vi.useRealTimers())

/** What a page uses, as long as the page is there. */
function onPage<T>(use: () => T) {
  const used: T[] = []
  const app = createApp({
    setup: () => {
      used.push(use())
      return () => null
    },
  })
  app.mount(document.createElement('div'))
  return { page: used[0]!, leave: () => app.unmount() }
}

const settle = () => vi.advanceTimersByTimeAsync(0)

describe('useNewest', () => {
  it('asks once more after what is under way, however often it was asked meanwhile, and tells nothing after the end', async () => {
    const answers = [held<object>(), held<object>(), held<object>()]
    let i = 0
    const asked = serve(async () => ({ body: await answers[i++]!.promise }))
    const got: unknown[] = []
    const { page, leave } = onPage(() =>
      useNewest(
        () => client.GET('/api/sets'),
        (answer) => got.push(answer.ok && answer.data),
      ),
    )
    for (let times = 0; times < 4; times += 1) void page.renew()
    answers[0]!.end({ total: 1 })
    await settle()
    expect(asked).toHaveLength(2)
    answers[1]!.end({ total: 2 })
    await settle()
    expect(got).toEqual([{ total: 1 }, { total: 2 }])
    void page.renew()
    leave()
    answers[2]!.end({ total: 3 })
    await settle()
    expect(got).toHaveLength(2)
  })
})

describe('useSitting', () => {
  const cell = (number: number, written: string) => ({ pupil_id: 'p', number, written, word: {} })
  const sitting = (cells: object[]) => ({
    questions: [{}, {}],
    pupils: [{ id: 'p' }],
    cells,
    counter: 1,
    tally: { counter: 1 },
  })
  const entry = (number: number, written: string) => ({ pupil_id: 'p', number, written, word: {}, gone: false })

  /** A server that judges what is entered; *more* is what others entered. */
  function judging(more: () => object = () => ({ counter: 1, cells: [], gone: [] })): Asked[] {
    return serve(({ method, body }) => {
      if (method !== 'PUT') return { body: method === 'GET' && !loaded ? ((loaded = true), sitting([])) : more() }
      const { entries } = body as { entries: ReturnType<typeof entry>[] }
      const gone = entries.filter((one) => one.gone)
      return { body: { counter: 2, cells: entries.filter((one) => !one.gone), gone } }
    })
  }
  let loaded = false
  beforeEach(() => void (loaded = false))

  it('shows an entry at once, sends what came meanwhile in one bundle after it, and undoes it in one step', async () => {
    const asked = judging()
    const { page, leave } = onPage(() => useSitting('s'))
    await page.load()
    page.enter([entry(0, '1')])
    page.enter([entry(1, '2')])
    page.enter([entry(1, '3')])
    expect(page.saving.value).toBe('saving')
    expect(page.pending.get('p 1')?.written).toBe('3')
    page.undo()
    expect(page.pending.get('p 1')?.written).toBe('2')
    page.enter([entry(1, '3')])
    await settle()
    const bundles = asked
      .filter((one) => one.method === 'PUT')
      .map((one) => (one.body as { entries: object[] }).entries)
    expect(bundles.flat()).toEqual([entry(0, '1'), entry(1, '3')])
    expect(page.saving.value).toBe('saved')
    expect(page.rows.get('p')!.map((one) => one?.written)).toEqual(['1', '3'])
    page.undo() // the 3 is the 2 again, the 2 is nothing, the 1 is nothing
    page.undo()
    page.undo()
    page.undo()
    await settle()
    expect(page.rows.get('p')).toEqual([null, null])
    leave()
  })

  it('says what is not saved, keeps it over a reload, and sends it when the server is there again', async () => {
    let away = true
    serve(({ method, body }) => {
      if (method === 'PUT' && away) return { status: 503, body: refusal('Away.') }
      if (method === 'PUT') return { body: { counter: 2, cells: (body as { entries: object[] }).entries, gone: [] } }
      return { body: sitting([]) }
    })
    const first = onPage(() => useSitting('s'))
    await first.page.load()
    first.page.enter([entry(0, '1/2')])
    await vi.advanceTimersByTimeAsync(100)
    expect(first.page.saving.value).toBe('not saved')
    first.leave()
    const second = onPage(() => useSitting('s'))
    await second.page.load()
    expect(second.page.pending.get('p 0')?.written).toBe('1/2')
    away = false
    await vi.advanceTimersByTimeAsync(60_000)
    expect(second.page.saving.value).toBe('saved')
    expect(second.page.rows.get('p')![0]?.written).toBe('1/2')
    second.leave()
  })

  it('takes what others entered, and takes cells away that are gone', async () => {
    const found = [
      { counter: 5, cells: [cell(0, '7'), cell(1, '8')], gone: [] },
      { counter: 6, cells: [], gone: [{ pupil_id: 'p', number: 0 }] },
    ]
    judging(() => found.shift() ?? { counter: 6, cells: [], gone: [] })
    const { page, leave } = onPage(() => useSitting('s'))
    await page.load()
    await vi.advanceTimersByTimeAsync(1600)
    expect(page.rows.get('p')!.map((one) => one?.written)).toEqual(['7', '8'])
    await vi.advanceTimersByTimeAsync(1600)
    expect(page.rows.get('p')!.map((one) => one?.written)).toEqual([undefined, '8'])
    leave()
  })

  it('drops what is refused for what it is, so that it is not sent for ever', async () => {
    const asked = serve(({ method }) =>
      method === 'PUT' ? { status: 422, body: refusal('Too long.') } : { body: sitting([]) },
    )
    const { page, leave } = onPage(() => useSitting('s'))
    await page.load()
    page.enter([entry(0, 'x'.repeat(500))])
    await vi.advanceTimersByTimeAsync(10_000)
    expect(page.refusal.value?.message).toBe('Too long.')
    expect([page.pending.size, asked.filter((one) => one.method === 'PUT').length]).toEqual([0, 1])
    leave()
  })
})

describe('the wish for a ladder', () => {
  const choices = { rungs: [{ code: 'F1' }, { code: 'F2' }, { code: 'M1' }] } as never

  it('is sent in the words of the formats, an empty field as none', () => {
    const spec = wishAsSpec({ ...emptyWish(), rungs: { F2: 2 }, answerBelow: ' 3 ', label: '  ', seed: 4 })
    expect([spec.answer_below, spec.label, spec.seed, spec.rungs]).toEqual(['3', null, 4, { F2: 2 }])
  })

  it('has its places in the order of the ladder, and takes the value that allows one', () => {
    const wish = { ...emptyWish(), rungs: { M1: 1, F1: 2 }, avoid: ['negatives', 'regrouping'] }
    expect(slotsOf(wish, choices)).toEqual(['F1', 'F1', 'M1'])
    expect(withNearest(wish, 'avoid', ['negatives']).avoid).toEqual(['negatives'])
    expect(withNearest(wish, 'largest_whole', 3)).toEqual({ ...wish, largestWhole: 3 })
    expect(withNearest(wish, 'answer_below', 2).answerBelow).toBe('2')
  })
})

describe('useLadder', () => {
  const rungs = [{ code: 'F1' }, { code: 'F2' }]
  const problem = (text: string, rung: string) => ({ text, rung })
  const ladder = (...problems: object[]) => ({ problems, impossible: null })

  function desk(answer: (body: { kept: (string | null)[]; shunned: string[] }) => object) {
    const asked = serve(({ path, body }) => {
      if (path === '/api/ladders' && !body) return { body: { rungs } }
      if (path === '/api/ladders') return { body: answer(body as never) }
      return { body: { examples: [{ rung: 'F1' }, { rung: 'F1' }, { rung: 'nowhere' }] } }
    })
    return { asked, ...onPage(() => useLadder('set')) }
  }
  const built = (asked: Asked[]) =>
    asked.filter((one) => one.method === 'POST').map((one) => one.body as never as Built)
  interface Built {
    spec: { rungs: Record<string, number> }
    kept: (string | null)[]
    shunned: string[]
  }

  it('begins with the rungs of the set, and is built anew when the wish changes, kept problems in places of their rungs', async () => {
    const { asked, page, leave } = desk(() => ladder(problem('1/5 + 2/5', 'F1'), problem('3/8 + 1/8', 'F2')))
    await vi.advanceTimersByTimeAsync(400)
    expect(built(asked).map((one) => one.spec.rungs)).toEqual([{ F1: 2 }])
    page.locked.value = [false, true]
    page.wish.value.rungs = { F1: 1, F2: 1 }
    await vi.advanceTimersByTimeAsync(400)
    expect(built(asked).at(-1)!.kept).toEqual([null, '3/8 + 1/8'])
    leave()
  })

  it('swaps one, the others staying, and does not get the same one again', async () => {
    const { asked, page, leave } = desk(() => ladder(problem('1/5 + 2/5', 'F1'), problem('1/7 + 2/7', 'F1')))
    await vi.advanceTimersByTimeAsync(400)
    await page.swap(0)
    expect(built(asked).at(-1)).toMatchObject({ kept: [null, '1/7 + 2/7'], shunned: ['1/5 + 2/5'] })
    expect(page.locked.value).toEqual([false, false])
    leave()
  })

  it('gives the wish the nearest value where none can be built, and shows no old ladder for no wish at all', async () => {
    const impossible = { limit: 'largest_whole', nearest: 2 }
    const { page, leave } = desk(() => ({ problems: [], impossible }))
    await vi.advanceTimersByTimeAsync(400)
    page.takeNearest()
    expect(page.wish.value.largestWhole).toBe(2)
    page.wish.value.rungs = {}
    await vi.advanceTimersByTimeAsync(400)
    expect(page.ladder.value).toBeNull()
    leave()
  })
})

describe('useWallShow', () => {
  const examples = [{ id: 'a' }, { id: 'x', unreadable: true }, { id: 'b' }]
  const step = { line_hidden: [], line_glyphs: [], pause: false, figure: null }
  const wrong = { status: 'usual', code: 'add-across' }

  function wall(id?: string) {
    const working = {
      layout: 'line', methods: {}, steps: [step, step], rows: [{ cells: [] }, { cells: [] }, { cells: [] }], boxes: [], sheet: null, story: null,
      choices: [], misconceptions: [wrong, { ...wrong, status: 'hidden' }, { ...wrong, code: 'carry-lost' }],
    } // prettier-ignore
    const asked = serve(({ path }) => ({
      body:
        path.endsWith('/examples/a') || path.endsWith('/examples/b')
          ? { id: path.at(-1), working }
          : { title: 'T', examples },
    }))
    return { asked, ...onPage(() => useWallShow('set', id)) }
  }

  it('uncovers line by line, says that the next one comes, and goes back the same way; what cannot be read is left out', async () => {
    const { page, leave } = wall()
    await settle()
    expect([page.chosen, page.at]).toEqual(['a', 0])
    while (!page.done) await page.forward()
    const whole = page.at
    await page.forward()
    expect(page.cover).toBe('Next example')
    await page.forward()
    await settle()
    expect([page.chosen, page.at]).toEqual(['b', 0])
    await page.back()
    await settle()
    expect([page.chosen, page.at]).toEqual(['a', whole])
    leave()
  })

  it('asks about one likely wrong answer after the other, those that are hidden left out, and tells it at the next press', async () => {
    const { page, leave } = wall('b')
    await settle()
    page.showWrong()
    expect([page.item?.code, page.cover]).toEqual(['add-across', 'Is this right? How do you know?'])
    await page.forward()
    expect(page.cover).toBe('')
    page.showWrong()
    expect(page.item?.code).toBe('carry-lost')
    page.showWrong()
    expect(page.item).toBeNull()
    page.nextOfChoices() // the problem has none
    expect(page.options).toBe('')
    leave()
  })

  it('comes back after a reload to the example and the line that were there', async () => {
    const first = wall('b')
    await settle()
    await first.page.forward()
    await nextTick()
    first.leave()
    const second = wall()
    await settle()
    expect([second.page.chosen, second.page.at]).toEqual(['b', 1])
    second.leave()
  })
})

describe('useBuildingShow', () => {
  const way = (text: string, lines: number) => ({ text, glyphs: [], lines: Array.from({ length: lines }, () => []) })
  const answer = (exact: boolean, ways: object[]) => ({
    numbers: '3, 4',
    wanted: '7',
    number_glyphs: [],
    wanted_glyphs: [],
    exact,
    nearest_glyphs: [],
    ways,
    ended_early: false,
  })
  async function shown(exact: boolean, ways: object[]) {
    serve(() => ({ body: answer(exact, ways) }))
    const { page } = onPage(() => useBuildingShow('3, 4', '7'))
    await settle()
    return page
  }

  it('uncovers way after way, each line by line, one press each, and back again', async () => {
    const page = await shown(true, [way('first', 2), way('second', 0)])
    const seen: unknown[] = []
    while (!page.done) {
      seen.push([page.way?.text, page.lines.length, page.asks])
      page.forward()
    }
    page.forward() // there is nothing more
    expect(seen).toEqual([
      [undefined, 0, 'How would you build it?'],
      ['first', 0, 'What would you write next?'],
      ['first', 1, 'What would you write next?'],
      ['first', 2, 'Is there another way?'],
    ])
    expect([page.way?.text, page.lines.length, page.asks, page.at]).toEqual(['second', 0, '', 4])
    page.go(-1)
    expect([page.way?.text, page.lines.length]).toEqual(['first', 0])
    page.go(-1)
    expect([page.way, page.at]).toEqual([null, 0])
    page.back()
    expect(page.at).toBe(0)
    page.go(1)
    page.go(1)
    page.go(1)
    expect(page.done).toBe(true)
  })

  it('says by a press of its own that a number cannot be built', async () => {
    const page = await shown(false, [way('nearest', 1)])
    expect([page.impossible, page.asks]).toEqual([false, 'How would you build it?'])
    page.forward()
    expect([page.impossible, page.way]).toEqual([true, null])
    page.forward()
    expect([page.impossible, page.way?.text]).toEqual([true, 'nearest'])
  })
})
