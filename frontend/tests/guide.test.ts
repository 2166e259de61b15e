import { readFileSync } from 'node:fs'

import { expect, test } from 'vitest'

import { PLACES } from '../src/bench/guide'

test('the help tells all of the guide, without its pictures and marks', () => {
  const guide = readFileSync('../docs/guide.md', 'utf-8')
  const heads = guide.split('\n').filter((line) => line.startsWith('## '))
  expect(PLACES.map((one) => `## ${one.name}`)).toEqual(heads)
  for (const one of PLACES) {
    const holder = document.createElement('div')
    holder.innerHTML = one.html
    expect(holder.querySelector('img, a, script')).toBeNull()
    expect(holder.textContent).not.toMatch(/\*\*|\]\(|^\||^!/m)
    expect(holder.textContent?.length).toBeGreaterThan(60)
  }
})
