import { beforeEach, describe, expect, it } from 'vitest'

import { outboxOf } from '../src/answers/outbox'
import { useCellInHand } from '../src/answers/useCellInHand'

const press = (key: string, more: Partial<KeyboardEventInit> = {}) => new KeyboardEvent('keydown', { key, ...more })

describe('the cell in hand', () => {
  const hand = () =>
    useCellInHand(
      () => 3,
      () => 4,
    )
  const at = (one: ReturnType<typeof hand>) => [one.row.value, one.column.value]

  it('goes through every cell once by Tab, row by row, and by Enter, column by column, and then leaves', () => {
    for (const [key, back] of [
      ['Tab', true],
      ['Enter', false],
    ] as const) {
      const one = hand()
      const seen = [at(one).join()]
      for (let i = 1; i < 12; i += 1) {
        one.key(press(key))
        seen.push(at(one).join())
      }
      expect(new Set(seen).size).toBe(12)
      expect(at(one)).toEqual([2, 3])
      if (back) expect(one.key(press(key))).toBe(false)
      for (let i = 10; i >= 0; i -= 1) {
        one.key(press(key, { shiftKey: true }))
        expect(at(one).join()).toBe(seen[i])
      }
    }
  })

  it('stays within the table, and leaves it by Escape and Tab', () => {
    const one = hand()
    for (const key of ['ArrowUp', 'ArrowLeft', 'PageUp', 'Home']) one.key(press(key))
    expect(at(one)).toEqual([0, 0])
    for (const key of ['PageDown', 'ArrowDown', 'End', 'ArrowRight']) one.key(press(key))
    expect(at(one)).toEqual([2, 3])
    one.key(press('Home', { ctrlKey: true }))
    expect(at(one)).toEqual([0, 0])
    expect(one.key(press('Escape'))).toBe(true)
    expect(one.key(press('Tab'))).toBe(false)
    expect(one.key(press('Tab'))).toBe(true)
    expect(one.key(press('x'))).toBe(false)
  })

  it('goes on in the way in which it went last', () => {
    const one = hand()
    one.goOn()
    expect(at(one)).toEqual([0, 1])
    one.key(press('Enter'))
    one.goOn()
    expect(at(one)).toEqual([2, 1])
    one.goOn()
    expect(at(one)).toEqual([0, 2])
  })
})

describe('entries that wait', () => {
  beforeEach(() => localStorage.clear())
  const entry = (written: string, number = 0) => ({ pupil_id: 'p', number, written, gone: false })

  it('stay until they are taken, and a newer one of the same cell stays after', () => {
    const box = outboxOf('one')
    box.put(entry('1'))
    box.put(entry('2', 1))
    box.put(entry('3'))
    expect(outboxOf('one').waiting()).toEqual(expect.arrayContaining([entry('3'), entry('2', 1)]))
    box.taken(entry('1'))
    expect(box.waiting()).toHaveLength(2)
    box.taken(entry('3'))
    expect(box.waiting()).toEqual([entry('2', 1)])
    expect(outboxOf('another').waiting()).toEqual([])
  })
})
