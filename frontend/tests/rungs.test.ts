import { expect, it } from 'vitest'

import { rungsOf } from '../src/bench/rungsOf'

it('offers each rung once, where it begins, by its name', () => {
  const examples = ['M5', 'M5', null, 'M7', 'M5'].map((rung, i) => ({ id: `example ${i}`, rung }))
  expect(rungsOf(examples, new Map([['M5', 'mixed numbers are subtracted']]))).toEqual([
    { code: 'M5', name: '1: mixed numbers are subtracted', id: 'example 0' },
    { code: 'M7', name: '4: M7', id: 'example 3' },
  ])
  expect(rungsOf([], new Map())).toEqual([])
})
