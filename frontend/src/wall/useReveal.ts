import { computed, type Ref } from 'vue'

import type { Schemas, Working } from '../api/client'

/** A press of the key: a line that comes, or its blanks that are filled. */
interface Press {
  /** The place of the line, or of the moment of a sheet, from 0; -1 is the problem itself. */
  line: number
  fills: boolean
  /** What of a story is told by it, besides lines. */
  tells?: 'question' | 'model' | 'calculation' | 'sentence'
}

const ASKS = {
  question: 'What may be asked?',
  model: 'Can you draw it?',
  calculation: 'What is to be calculated?',
  sentence: 'Answer it in a sentence.',
}

/**
 * In what order a working is uncovered: line by line, box by box, a sheet moment by moment. What has blanks comes with them first,
 * and is filled by the next press. A story is told first: its text is there, then come its question, its model and its calculation,
 * at the end the sentence that answers.
 */
export function useReveal(working: Ref<Working | null>, at: Ref<number>) {
  const lines = computed(() => {
    const shown = working.value
    if (!shown) return 0
    if (shown.sheet) return shown.sheet.moments.length
    return shown.boxes.length || shown.steps.length
  })
  const presses = computed<Press[]>(() => {
    const story = working.value?.story
    const found: Press[] = []
    if (story) {
      found.push({ line: -1, fills: false, tells: 'question' })
      if (story.calculations.some((one) => one.model)) found.push({ line: -1, fills: false, tells: 'model' })
      found.push({ line: -1, fills: false, tells: 'calculation' })
    }
    if (hasBlanks(-1)) found.push({ line: -1, fills: true })
    for (let line = 0; line < lines.value; line++) {
      found.push({ line, fills: false })
      if (hasBlanks(line)) found.push({ line, fills: true })
    }
    if (story) found.push({ line: lines.value - 1, fills: false, tells: 'sentence' })
    return found
  })
  /** Whether a part of the story has been told; true where there is no story. */
  function isTold(part: NonNullable<Press['tells']>): boolean {
    if (!working.value?.story) return part !== 'sentence'
    return presses.value.findIndex((press) => press.tells === part) < at.value
  }
  const done = computed(() => at.value >= presses.value.length)
  /** The line in hand; -1 while only the problem is seen. */
  const current = computed(() => presses.value[Math.min(at.value, presses.value.length) - 1]?.line ?? -1)
  /** What the next press does. */
  const next = computed(() => presses.value[at.value] ?? null)
  const asks = computed(() => {
    if (!next.value) return ''
    if (next.value.tells) return ASKS[next.value.tells]
    const shown = working.value
    const number = shown?.sheet ? shown.sheet.moments[next.value.line]?.step : next.value.line
    const step = shown?.boxes.length || number === undefined ? undefined : shown?.steps[number]
    if (next.value.fills) return 'What belongs in the blank?'
    return step?.pause ? 'Try it yourself first.' : shown?.methods.asks || 'What would you write next?'
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

  return { presses, done, current, next, asks, isOpen, isTold }
}
