/** One thing after the other: what two at once would spoil begins when the one before it has ended, well or badly. */
export function oneAtATime() {
  let last: Promise<unknown> = Promise.resolve()
  return function inTurn<T>(step: () => Promise<T>): Promise<T> {
    const made = last.then(step)
    last = made.catch(() => null)
    return made
  }
}
