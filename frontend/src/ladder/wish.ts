import type { Choices, LadderWish } from '../api/client'

export type Operation = NonNullable<LadderWish['operations']>[number]
export const OPERATIONS: Operation[] = ['+', '-', '×', '÷']
/** What is wished for, as the form holds it. */
export interface Wish {
  rungs: Record<string, number>
  denominators: number[]
  largestCommon: number | null
  largestWhole: number
  answerBelow: string
  avoid: string[]
  targets: string[]
  separate: boolean
  label: string
  operations: Operation[]
  lowestTerms: boolean
  places: number[]
  likesFirst: boolean
  only: string | null
  seed: number
}

export function emptyWish(): Wish {
  return {
    rungs: {},
    denominators: [2, 3, 4, 5, 6, 8, 10, 12],
    largestCommon: 60,
    largestWhole: 12,
    answerBelow: '',
    avoid: ['negatives'],
    targets: [],
    separate: true,
    label: '',
    operations: [...OPERATIONS],
    lowestTerms: false,
    places: [1, 2],
    likesFirst: false,
    only: null,
    seed: Math.floor(Math.random() * 2 ** 30),
  }
}

/** The wish in the words of docs/formats.md. */
export function wishAsSpec(wish: Wish): LadderWish {
  return {
    rungs: wish.rungs,
    denominators: wish.denominators,
    largest_common_denominator: wish.largestCommon,
    largest_whole: wish.largestWhole,
    answer_below: wish.answerBelow.trim() || null,
    avoid: wish.avoid,
    targets: wish.targets,
    separate: wish.separate,
    label: wish.label.trim() || null,
    operations: wish.operations,
    lowest_terms: wish.lowestTerms,
    places: wish.places,
    likes_first: wish.likesFirst,
    only: wish.only,
    seed: wish.seed,
  }
}

/** The rung of each problem that is wished for, in the order of the ladder. */
export function slotsOf(wish: Wish, choices: Choices | null): string[] {
  return (choices?.rungs ?? []).flatMap(({ code }) => Array.from({ length: wish.rungs[code] ?? 0 }, () => code))
}

/** The wish with the value of a *limit* that was found to allow a ladder. */
export function withNearest(wish: Wish, limit: string, nearest: unknown): Wish {
  const names: Record<string, Partial<Wish>> = {
    rungs: { rungs: (nearest ?? {}) as Record<string, number> },
    answer_below: { answerBelow: String(nearest) },
    denominators: { denominators: nearest as number[] },
    largest_common_denominator: { largestCommon: nearest as number },
    largest_whole: { largestWhole: nearest as number },
    lowest_terms: { lowestTerms: nearest as boolean },
    operations: { operations: nearest as Operation[] },
    places: { places: nearest as number[] },
    avoid: { avoid: nearest as string[] },
    targets: { targets: nearest as string[] },
    only: { only: nearest as string | null },
  }
  return { ...wish, ...names[limit] }
}
