/** A question of a class's own checklist, and the code of what it hangs on. */
export interface Question {
  id: number
  hangsOn: string
  asks: string
}

let made = 0

export function newQuestion(hangsOn = 'always', asks = ''): Question {
  return { id: (made += 1), hangsOn, asks }
}

/** The questions of a checklist as its ways have it: a line each, `enough: Are there enough pieces?` */
export function readQuestions(text: string): Question[] {
  const lines = text.split('\n').filter((line) => line.includes(':'))
  return lines.map((line) => {
    const at = line.indexOf(':')
    return newQuestion(line.slice(0, at).trim(), line.slice(at + 1).trim())
  })
}

/** The checklist for its ways; a question that is not written yet is left out. */
export function writeQuestions(questions: Question[]): string {
  const asked = questions.map((one) => ({ ...one, asks: one.asks.replace(/\s+/g, ' ').trim() }))
  return asked
    .filter((one) => one.asks)
    .map((one) => `${one.hangsOn}: ${one.asks}`)
    .join('\n')
}
