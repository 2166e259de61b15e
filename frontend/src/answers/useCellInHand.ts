import { ref } from 'vue'

/** The cell that is in hand in a table of so many rows and columns, and the keys that go to another one. */
export function useCellInHand(rows: () => number, columns: () => number) {
  const row = ref(0)
  const column = ref(0)
  let along: 'right' | 'down' = 'right' // how the teacher goes on: a pupil's paper at a time, or a problem at a time
  let leaving = false // Escape was pressed: the next Tab leaves the table

  function go(toRow: number, toColumn: number): void {
    row.value = Math.max(0, Math.min(rows() - 1, toRow))
    column.value = Math.max(0, Math.min(columns() - 1, toColumn))
  }

  const move = (down: number, right: number) => go(row.value + down, column.value + right)

  /** On to the next cell, beyond the end of a row or column into the next one; false at the last of all. */
  function step(down: number, right: number): boolean {
    along = right ? 'right' : 'down'
    const [height, width] = [rows(), columns()]
    const at = right ? row.value * width + column.value + right : column.value * height + row.value + down
    if (at < 0 || at >= height * width) return false
    if (right) go(Math.floor(at / width), at % width)
    else go(at % height, Math.floor(at / height))
    return true
  }

  /** On in the way in which the last step went. */
  const goOn = () => (along === 'right' ? step(0, 1) : step(1, 0))

  const KEYS: Record<string, (event: KeyboardEvent) => boolean> = {
    ArrowUp: () => (move(-1, 0), true),
    ArrowDown: () => (move(1, 0), true),
    ArrowLeft: () => (move(0, -1), true),
    ArrowRight: () => (move(0, 1), true),
    PageUp: () => (move(-10, 0), true),
    PageDown: () => (move(10, 0), true),
    Home: (event) => (go(event.ctrlKey ? 0 : row.value, 0), true),
    End: (event) => (go(event.ctrlKey ? rows() : row.value, columns()), true),
    Enter: (event) => (step(event.shiftKey ? -1 : 1, 0), true),
    Tab: (event) => !leaving && step(0, event.shiftKey ? -1 : 1),
    Escape: () => true,
  }

  /** Go where a key says; false where it says nothing here. */
  function key(event: KeyboardEvent): boolean {
    const taken = KEYS[event.key]?.(event) ?? false
    leaving = event.key === 'Escape'
    return taken
  }

  return { row, column, go, step, goOn, key }
}
