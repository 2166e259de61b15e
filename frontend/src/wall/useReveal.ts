import { computed, type Ref } from 'vue'

import type { Schemas, Working } from '../api/client'

/** A press of the key: a line that comes, or its blanks that are filled. */
interface Press {
  /** The place of the line, or of the moment of a sheet, from 0; -1 is the problem itself. */
  line: number
  fills: boolean
}

/**
 * In what order a working is uncovered: line by line, box by box, a sheet moment by moment. What has blanks comes with them first,
 * and is filled by the next press.
 */
export function useReveal(working: Ref<Working | null>, at: Ref<number>) {
  const lines = computed(() => {
    const shown = working.value
    if (!shown) return 0
    if (shown.sheet) return shown.sheet.moments.length
    return shown.boxes.length || shown.steps.length
  })
  const presses = computed<Press[]>(() => {
    const found: Press[] = hasBlanks(-1) ? [{ line: -1, fills: true }] : []
    for (let line = 0; line < lines.value; line++) {
      found.push({ line, fills: false })
      if (hasBlanks(line)) found.push({ line, fills: true })
    }
    return found
  })
  const done = computed(() => at.value >= presses.value.length)
  /** The line in hand; -1 while only the problem is seen. */
  const current = computed(() => presses.value[Math.min(at.value, presses.value.length) - 1]?.line ?? -1)
  /** What the next press does. */
  const next = computed(() => presses.value[at.value] ?? null)
  const asks = computed(() => {
    if (!next.value) return ''
    const shown = working.value
    const number = shown?.sheet ? shown.sheet.moments[next.value.line]?.step : next.value.line
    const step = shown?.boxes.length || number === undefined ? undefined : shown?.steps[number]
    if (next.value.fills) return 'What belongs in the blank?'
    return step?.pause ? 'Try it yourself first.' : 'What would you write next?'
  })

  /** Whether a line with blanks still has them open. */
  const isOpen = (line: number) => presses.value.findIndex((press) => press.line === line && press.fills) >= at.value

  function hasBlanks(line: number): boolean {
    const shown = working.value
    if (shown?.sheet) return shown.sheet.cells.some((cell) => cell.blank && cell.at === line + 1)
    if (!shown) return false
    if (shown.boxes.length) {
      const box = shown.boxes[line]
      const inRows = (line < 0 ? shown.rows.slice(0, 1) : (box?.rows ?? [])).flatMap((row) => row.cells)
      return inRows.some((cell) => cell.blank) || !!box?.jottings.some((one) => one.key && isBlank(one))
    }
    const step = shown.steps[line]
    const cells = shown.rows[line + 1]?.cells.some((cell) => cell.blank) ?? false
    return cells || (!!step && (step.line_hidden.some(Boolean) || step.line_glyphs.flat().some((piece) => piece.blank)))
  }

  /** Whether pupils fill in all of a jotting, or a part of it. */
  function isBlank(jotting: Schemas['JottingView']): boolean {
    return jotting.hidden || jotting.glyphs.some((piece) => piece.blank)
  }

  return { presses, done, current, next, asks, isOpen }
}
