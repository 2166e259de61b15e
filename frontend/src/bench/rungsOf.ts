/** A rung of a ladder: what it is called, and its first example. */
export interface RungOf {
  code: string
  name: string
  id: string
}

/** The rungs of some *examples*, each once, where it begins; by their *names* as far as they are known. */
export function rungsOf(examples: { id: string; rung: string | null }[], names: Map<string, string>): RungOf[] {
  const found = new Map<string, RungOf>()
  examples.forEach(({ id, rung }, i) => {
    if (rung && !found.has(rung)) found.set(rung, { code: rung, name: `${i + 1}: ${names.get(rung) ?? rung}`, id })
  })
  return [...found.values()]
}
