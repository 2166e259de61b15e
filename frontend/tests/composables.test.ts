import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { createApp, effectScope, nextTick, ref, shallowRef } from 'vue'

import { client, type Working } from '../src/api/client'
import { useLatest } from '../src/api/useLatest'
import { usePreview } from '../src/bench/usePreview'
import { seenOf } from '../src/bench/seenOf'
import { useStoryReading } from '../src/story/useStoryReading'
import { textOf } from '../src/parts/textOf'
import { useReveal } from '../src/wall/useReveal'
import { useWallFigure } from '../src/wall/useWallFigure'
import { useTimer } from '../src/wall/useTimer'
import { held, refusal, serve } from './server'

beforeEach(() => void vi.useFakeTimers())
afterEach(() => vi.useRealTimers())

describe('useLatest', () => {
  it('hands back nothing for a request that a newer one has taken the place of', async () => {
    const [first, second] = [held<object>(), held<object>()]
    const answers = [first.promise, second.promise]
    serve(async () => ({ body: await answers.shift() }))
    const { latest } = useLatest()
    const old = latest((signal) => client.GET('/api/sets', { signal }))
    const young = latest((signal) => client.GET('/api/sets', { signal }))
    second.end({ total: 2 })
    first.end({ total: 1 })
    expect(await old).toBeNull()
    expect(await young).toMatchObject({ ok: true, data: { total: 2 } })
  })

  it('aborts what is under way when its page is left', async () => {
    let given: AbortSignal | null = null
    serve(() => held<never>().promise)
    const scope = effectScope()
    scope.run(() => void useLatest().latest((signal) => client.GET('/api/sets', { signal: (given = signal) })))
    scope.stop()
    expect(given!.aborted).toBe(true)
  })
})

describe('usePreview', () => {
  it('asks once after a pause, and forgets what it knew when the field is emptied', async () => {
    const asked = serve(() => ({ body: { glyphs: [], surprises: ['Needs regrouping.'] } }))
    const typed = ref('')
    const scope = effectScope()
    const shown = scope.run(() =>
      usePreview(
        () => typed.value,
        () => ({ ties: 'down' }),
      ),
    )!
    for (const text of ['7', '7 1/4', '7 1/4 - 3 5/6']) {
      typed.value = text
      await vi.advanceTimersByTimeAsync(60)
    }
    await vi.advanceTimersByTimeAsync(500)
    expect(asked.map((one) => one.body)).toEqual([{ text: '7 1/4 - 3 5/6', ways: { ties: 'down' } }])
    expect(shown.preview.value?.surprises).toEqual(['Needs regrouping.'])
    typed.value = ' '
    await nextTick()
    expect(shown.preview.value).toBeNull()
    scope.stop()
  })

  it('shows a refusal in the place of a preview', async () => {
    serve(() => ({ status: 422, body: refusal('The denominator is 0.') }))
    const scope = effectScope()
    const shown = scope.run(() =>
      usePreview(
        () => '1/0',
        () => ({}),
      ),
    )!
    await vi.advanceTimersByTimeAsync(500)
    expect([shown.preview.value, shown.refusal.value?.message]).toEqual([null, 'The denominator is 0.'])
    scope.stop()
  })
})

/** A working of so many steps; those in *blank* have a blank in their line. */
function working(steps: number, blank: number[] = [], more: object = {}): Working {
  const row = (line: number) => ({ cells: [{ blank: blank.includes(line) }] })
  const step = { line_hidden: [], line_glyphs: [], pause: false }
  return {
    sheet: null,
    boxes: [],
    methods: {},
    steps: Array.from({ length: steps }, () => step),
    rows: Array.from({ length: steps + 1 }, (_, i) => row(i - 1)),
    ...more,
  } as unknown as Working
}

describe('useReveal', () => {
  it('shows a line with blanks first with them, then filled', () => {
    const at = ref(0)
    const reveal = useReveal(shallowRef(working(2, [0])), at)
    expect(reveal.presses.value).toEqual([
      { line: 0, fills: false },
      { line: 0, fills: true },
      { line: 1, fills: false },
    ])
    expect([reveal.current.value, reveal.asks.value]).toEqual([-1, 'What would you write next?'])
    at.value = 1
    expect([reveal.isOpen(0), reveal.asks.value]).toEqual([true, 'What belongs in the blank?'])
    at.value = 2
    expect([reveal.isOpen(0), reveal.done.value]).toEqual([false, false])
    at.value = 3
    expect([reveal.current.value, reveal.done.value]).toEqual([1, true])
  })

  it('asks what the class is asked', () => {
    const own = working(1, [], { methods: { asks: 'And now?' } })
    expect(useReveal(shallowRef(own), ref(0)).asks.value).toBe('And now?')
  })

  it('fills the blanks of the problem itself before any line', () => {
    const reveal = useReveal(shallowRef(working(1, [-1])), ref(0))
    expect(reveal.presses.value[0]).toEqual({ line: -1, fills: true })
  })

  it('shows a sheet moment by moment, and boxes one after the other; each fills its own blanks', () => {
    const cells = [
      { at: 0, blank: false },
      { at: 2, blank: true },
      { at: 3, blank: false },
    ]
    const sheet = { cells, moments: [{ step: 0 }, { step: 0 }, { step: 1 }] }
    const reveal = useReveal(shallowRef(working(2, [], { sheet })), ref(2))
    expect(reveal.presses.value.map((press) => [press.line, press.fills])).toEqual([
      [0, false],
      [1, false],
      [1, true],
      [2, false],
    ])
    expect([reveal.current.value, reveal.isOpen(1), reveal.isOpen(0)]).toEqual([1, true, false])
    const box = (blank: boolean) => ({ rows: [{ cells: [{ blank }] }], jottings: [] })
    const boxes = useReveal(shallowRef(working(4, [], { boxes: [box(false), box(true)] })), ref(0))
    expect(boxes.presses.value).toHaveLength(3)
  })
})

describe('a story on the Wall', () => {
  const model = { marks: [], acts: true }
  const story = { calculations: [{ first_step: 0, model, model_hidden: false }] }

  it('is told with its question, model and calculation before the lines, and its sentence after them', () => {
    const at = ref(0)
    const shown = shallowRef(working(1, [], { story }))
    const reveal = useReveal(shown, at)
    expect(reveal.presses.value.map((press) => press.tells ?? press.line)).toEqual([
      'question',
      'model',
      'calculation',
      0,
      'sentence',
    ])
    expect([reveal.isTold('question'), reveal.asks.value]).toEqual([false, 'What may be asked?'])
    at.value = 2
    expect([reveal.isTold('model'), reveal.isTold('calculation'), reveal.current.value]).toEqual([true, false, -1])
    at.value = 5
    expect([reveal.isTold('sentence'), reveal.done.value, reveal.current.value]).toEqual([true, true, 0])
    const plain = useReveal(shallowRef(working(1, [])), ref(0))
    expect([plain.isTold('calculation'), plain.isTold('sentence')]).toEqual([true, false])
  })

  it('keeps the question mark of its model until the sentence is told', async () => {
    const [at, shown] = [ref(2), shallowRef(working(1, [], { story }))]
    const reveal = useReveal(shown, at)
    const scope = effectScope()
    const { figure, state } = scope.run(() => useWallFigure(shown, reveal.current, reveal.isOpen, reveal.isTold))!
    at.value = 3
    await vi.advanceTimersByTimeAsync(800)
    expect([figure.value, state.value]).toEqual([model, 'before'])
    at.value = 5
    await vi.advanceTimersByTimeAsync(800)
    expect([figure.value, state.value]).toEqual([model, 'after'])
    scope.stop()
  })
})

describe('useStoryReading', () => {
  const reading = {
    text: 'A plank is 3 m long. 1 m goes. How long is it?',
    situation: 'take-from',
    unknown: 'result',
    calculations: [{ told: '3 - 1' }],
    quantities: [
      { needed: true, number: '3' },
      { needed: false, number: '1' },
    ],
    sentence: 'It is _ long.',
  }

  it('follows the text until a part is corrected, and reads the text with the correction from then on', async () => {
    const asked = serve(() => ({ body: { numbers: [], certain: true, readings: [reading], refusal: null } }))
    const scope = effectScope()
    const desk = scope.run(() => useStoryReading(() => ({ ties: 'up' })))!
    desk.begin(reading.text, null)
    await vi.advanceTimersByTimeAsync(500)
    expect(desk.parts.calculation).toBe('3 - 1')
    desk.correct({ calculation: '3 + 1' })
    await vi.advanceTimersByTimeAsync(500)
    expect(asked.at(-1)?.body).toEqual({
      text: `${reading.text} {take-from result: 3 + 1; not 1; says It is _ long.}`,
      ways: { ties: 'up' },
    })
    expect(desk.parts.calculation).toBe('3 + 1')
    desk.readAnew()
    await vi.advanceTimersByTimeAsync(500)
    expect([asked.at(-1)?.body, desk.parts.calculation]).toEqual([
      { text: reading.text, ways: { ties: 'up' } },
      '3 - 1',
    ])
    scope.stop()
  })
})

describe('seenOf', () => {
  const cell = { x: 0, y: 0, text: '7', size: 'tall', role: '', below: false, struck: false, unit: -1, blank: false }
  const sheet = {
    cells: [
      { ...cell, at: 0, struck_at: 2, struck: true, key: 'problem 0' },
      { ...cell, at: 1, struck_at: 0, key: 'a', blank: true },
      { ...cell, at: 2, struck_at: 0, key: 'b' },
    ],
    rules: [{ x: 0, y: 0, w: 2, role: '', at: 2 }],
    moments: [{ hidden: false }, { hidden: true }],
    fills: [{ x: 0, y: 0, w: 2, h: 2 }],
  } as unknown as Parameters<typeof seenOf>[0]
  const keys = (seen: ReturnType<typeof seenOf>) => seen.cells.map((one) => one.key)

  it('shows what is written so far, crossed out from its own moment on', () => {
    const one = seenOf(sheet, true, 1)
    expect([keys(one), one.cells[0]?.struck, one.rules.length]).toEqual([['problem 0', 'a'], false, 0])
    const two = seenOf(sheet, true, 2)
    expect([keys(two), two.cells[0]?.struck, two.rules.length]).toEqual([['problem 0', 'a', 'b'], true, 1])
  })

  it('covers the blanks of what is not filled in yet', () => {
    expect(seenOf(sheet, true, 1, 0).cells.map((one) => one.covered)).toEqual([false, true])
    expect(seenOf(sheet, true, 1, 1).cells.map((one) => one.covered)).toEqual([false, false])
    expect(seenOf(sheet, false).open).toBe(true)
  })

  it('leaves room for what pupils write, and shows it to who looks under it', () => {
    const covered = seenOf(sheet, false)
    expect([keys(covered), covered.cells[0]?.struck, covered.fills.length]).toEqual([['problem 0', 'a'], false, 1])
    const seen = seenOf(sheet, true)
    expect([keys(seen).length, seen.fills.length, seen.open]).toEqual([3, 0, false])
  })

  it('names the numbers of a line by their places', () => {
    const row = { cells: [{ ...cell, unit: 2, blank: true }, cell], rules: [], key: 'add 0' } as unknown as typeof sheet
    const seen = seenOf(row, false)
    expect([keys(seen), seen.cells[0]?.covered]).toEqual([['add 0 2', ''], true])
    expect(seenOf(row, true).cells[0]?.covered).toBe(false)
  })
})

describe('useTimer', () => {
  function mounted(example: () => string | null) {
    const timers: ReturnType<typeof useTimer>[] = []
    const app = createApp({
      setup: () => {
        timers.push(useTimer(() => 'set', example))
        return () => null
      },
    })
    app.mount(document.createElement('div'))
    return { app, seconds: () => timers[0]!.seconds.value }
  }

  it('logs every ten seconds, and the rest when the example changes or the page is left', async () => {
    const asked = serve(() => ({ body: { time_log: [] } }))
    const shown = ref('a')
    const { app, seconds } = mounted(() => shown.value)
    await vi.advanceTimersByTimeAsync(13_000)
    expect(seconds()).toBe(13)
    shown.value = 'b'
    await vi.advanceTimersByTimeAsync(4000)
    app.unmount()
    await vi.advanceTimersByTimeAsync(0)
    expect(asked.map((one) => [one.path.split('/')[5], (one.body as { seconds: number }).seconds])).toEqual([
      ['a', 10],
      ['a', 3],
      ['b', 4],
    ])
  })

  it('keeps the seconds that could not be logged for the next time', async () => {
    let fails = true
    const asked = serve(() => (fails ? { status: 500, body: refusal('No.') } : { body: { time_log: [] } }))
    const { app } = mounted(() => 'a')
    await vi.advanceTimersByTimeAsync(10_000)
    fails = false
    await vi.advanceTimersByTimeAsync(1000)
    app.unmount()
    await vi.advanceTimersByTimeAsync(0)
    expect(asked.map((one) => (one.body as { seconds: number }).seconds)).toEqual([10, 11])
  })

  it('does not count while nothing is shown or the page is hidden', async () => {
    serve(() => ({ body: {} }))
    const { app, seconds } = mounted(() => null)
    await vi.advanceTimersByTimeAsync(5000)
    expect(seconds()).toBe(0)
    app.unmount()
  })
})

describe('textOf', () => {
  const wanted = 'problem\n5 ÷ 2 · ½ €\n'
  const wide = (text: string, swap: boolean) =>
    [...text].flatMap((one) => {
      const code = one.charCodeAt(0)
      return swap ? [code >> 8, code & 255] : [code & 255, code >> 8]
    })

  it.each([
    ['UTF-8', [...new TextEncoder().encode(wanted)]],
    ['UTF-8 with its mark', [...new TextEncoder().encode('\ufeff' + wanted)]],
    ['UTF-16', wide('\ufeff' + wanted, false)],
    ['UTF-16, the other way round', wide('\ufeff' + wanted, true)],
    ['UTF-16 without a mark', wide(wanted, false)],
    ['what older programs save', [...wanted.replace('€', 'é')].map((one) => one.charCodeAt(0))],
  ])('reads a file in %s', async (_, bytes) => {
    vi.useRealTimers()
    const found = (await textOf(new Blob([new Uint8Array(bytes)]))).replace('\ufeff', '')
    expect(found.replace('é', '€')).toBe(wanted)
  })
})
