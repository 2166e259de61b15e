/** What can be typed, as help tells it: a sentence, and something to try. */
export interface Topic {
  name: string
  said: string
  example?: string
}

export const KEYS: [string, string][] = [
  ['/', 'go to the entry line'],
  ['Enter', 'ink what stands in pencil: put the typed problem on the ladder'],
  ['↑  ↓', 'on the ladder: the example above or below'],
  ['Alt + ↑  Alt + ↓', 'on the ladder: move this example'],
  ['Delete', 'on the ladder: take this example off'],
  ['Ctrl + Z', 'undo'],
  ['Ctrl + Shift + Z', 'redo'],
  ['?', 'this help'],
]

export const TYPED: Topic[] = [
  { name: 'A fraction', said: 'The numerator, a stroke, the denominator.', example: '5/6 + 3/4' },
  { name: 'A mixed number', said: 'The wholes, a space, the fraction.', example: '7 1/4 - 3 5/6' },
  { name: 'A decimal', said: 'With a point, or with a comma where your class writes one.', example: '12.4 - 6.75' },
  { name: 'A decimal that recurs', said: 'With three dots behind what repeats.', example: '0.333...' },
  { name: 'Times and divided by', said: 'A star or ×, a colon or ÷.', example: '2 1/2 × 3/4' },
  { name: 'Brackets and powers', said: 'Round brackets; a power with ^.', example: '2 × (1/2 + 1/3)' },
  { name: 'A unit', said: 'Behind the problem, once.', example: '5 1/2 - 2 3/4 ft' },
  { name: 'A missing number', said: 'A line in its place; also above or below a bar.', example: '5/8 + _ = 1 1/4' },
  { name: 'Equal fractions', said: 'A chain of them with lines to fill in.', example: '2/3 = _/12' },
  { name: 'Another form', said: 'The number alone; “Asked for” beside it says what it is to become.', example: '17/5' },
  { name: 'Several at once', said: 'Bring in, above the ladder: pasted lines, a table, a file.' },
  { name: 'A story', said: 'Type it as you would tell it; a larger field opens.' },
]
