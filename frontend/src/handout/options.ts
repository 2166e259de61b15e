import type { paths } from '../api/schema'

export type HandoutOptions = Required<
  Omit<NonNullable<paths['/api/sets/{set_id}/handout']['get']['parameters']['query']>, 'most'>
>
type PageKind = HandoutOptions['kind']

/** What a page can be, and which options it has. */
export const PAGE_KINDS: { code: PageKind; name: string; said: string; has: string[] }[] = [
  {
    code: 'sheet',
    name: 'Problems',
    said: 'With room to work, as the set leaves them.',
    has: ['form', 'many', 'room', 'choices', 'pictures', 'versions', 'key'],
  },
  {
    code: 'yours',
    name: 'Example and yours',
    said: 'Left a worked example, right one like it to do.',
    has: ['pictures', 'versions', 'key'],
  },
  {
    code: 'mistake',
    name: 'Find the mistake',
    said: 'Somebody went a likely wrong way. Where, and why?',
    has: ['mistake', 'many', 'room', 'versions', 'key'],
  },
  {
    code: 'estimate',
    name: 'Estimate first',
    said: 'A box for the estimate; afterwards: can it be right?',
    has: ['many', 'room', 'versions', 'key'],
  },
  {
    code: 'shade',
    name: 'Pictures to shade',
    said: 'The numbers as pictures, nothing shaded yet.',
    has: ['shading', 'many', 'room', 'versions', 'key'],
  },
  { code: 'cut', name: 'Pieces to cut out', said: 'Strips and circles for the denominators of the set.', has: [] },
  { code: 'tick', name: 'Steps to tick', said: 'The checklist of your way, a card for each pupil.', has: [] },
  {
    code: 'slip',
    name: 'Exit slip',
    said: 'Up to four problems on a third of a page.',
    has: ['choices', 'versions', 'key'],
  },
]

export const AS_IT_COMES: HandoutOptions = {
  kind: 'sheet',
  paper: 'a4',
  per_page: 0,
  form: 'faded',
  space: 30,
  fill: true,
  name_line: true,
  pictures: false,
  key: 'pages',
  choices: false,
  wrong_answers: true,
  mistake: '',
  shading: 'bars',
  large: false,
  wide: false,
  grey: false,
  class_name: '',
  date: '',
  minutes: 0,
  versions: 1,
  seed: 1,
  only: '',
}
