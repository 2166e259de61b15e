import type { Cell, Schemas } from '../api/client'

type Sheet = Schemas['SheetView']
interface Written {
  cells: (Cell | Schemas['SheetCell'])[]
  rules: Schemas['Rule'][]
  key?: string
  moments?: Sheet['moments']
  fills?: Sheet['fills']
}

/** What of a written line or sheet is seen, and whether a blank in it is still open. */
export interface Seen {
  cells: (Cell & { key: string; covered: boolean })[]
  rules: Schemas['Rule'][]
  fills: Sheet['fills']
  open: boolean
}

/**
 * What of *written* is seen: everything with *peek*; without it, nothing of what pupils write. Of a sheet the first *at* moments, or
 * all, the blanks of the first *filled* of them filled in; a digit is crossed out from its own moment on. Each cell gets the key
 * that names it for blanks.
 */
export function seenOf(written: Written, peek: boolean, at = Infinity, filled = peek ? Infinity : -1): Seen {
  const moments = written.moments ?? []
  const shown = (moment: number) => moment <= at && (peek || !moments[moment - 1]?.hidden)
  const cells = written.cells
    .filter((cell) => !('at' in cell) || shown(cell.at))
    .map((cell) => ({
      ...cell,
      struck: 'struck_at' in cell ? cell.struck && shown(cell.struck_at) : cell.struck,
      covered: cell.blank && ('at' in cell ? cell.at > filled : filled < 0),
      key: 'key' in cell ? cell.key : cell.unit >= 0 ? `${written.key} ${cell.unit}` : '',
    }))
  const rules = written.rules.filter((rule) => !('at' in rule) || shown(rule.at as number))
  const fills = peek || at < moments.length ? [] : (written.fills ?? [])
  return { cells, rules, fills, open: fills.length > 0 || cells.some((cell) => cell.covered) }
}
