import createClient from 'openapi-fetch'

import type { components, paths } from './schema'
import { LOST_CHANGE, LostChange, NO_ANSWER, NOT_SENT, NotSent, send } from './send'

export type Schemas = components['schemas']
export type Glyph = Schemas['Glyph']
export type Figure = Schemas['FigureView']
export type Mark = Schemas['Mark']
export type Row = Schemas['RowView']
export type Step = Schemas['StepView']
export type Working = Schemas['WorkingView']
export type Misconception = Schemas['MisconceptionView']
export type OtherWay = Schemas['OtherWay']
export type Example = Schemas['ExampleOut']
export type Setting = Schemas['SettingOut']
export type ExampleSet = Schemas['SetOut']
export type ExampleSummary = Schemas['ExampleSummary']
export type SetSummary = Schemas['SetSummary']
export type Built = Schemas['BuiltOut']
export type Level = Schemas['LevelOut']
export type Verdict = Schemas['VerdictView']
export type Checked = Schemas['CheckedView']
export type Entry = Schemas['EntryOut']
export type Mended = Schemas['NearestView']
export type Reveals = Schemas['RevealsOut']
export type Ladder = Schemas['LadderOut']
export type LadderProblem = Schemas['LadderProblem']
export type Choices = Schemas['ChoicesOut']
export type Counts = Schemas['CountsOut']
export type Standard = Schemas['StandardOut']
export type Cell = Schemas['Cell']
export type LadderWish = Schemas['LadderWish']
export type Story = Schemas['StoryView']
export type ToldStory = Schemas['ToldStory']
export type StoryChoices = Schemas['StoryChoicesOut']
export type SchoolClass = Schemas['ClassOut']
export type ClassSummary = Schemas['ClassSummary']
export type Pupil = Schemas['PupilView']
export type Sitting = Schemas['SittingOut']
export type SittingSummary = Schemas['SittingSummary']
export type AnswerCell = Schemas['CellView']
export type AnswerEntry = Schemas['EntryIn']
export type AboutCell = Schemas['AboutCellView']
export type Happened = Schemas['HappenedView']
export type Next = Schemas['NextOut']
export type Group = Schemas['GroupView']
export type Refusal = Schemas['ErrorBody']

/** What the API answered: the data, or a refusal in words with the status beside it. */
export type Answer<T> = { ok: true; data: T } | { ok: false; status: number; refusal: Refusal; body: unknown }
/** A call of `client`, on its way. */
export type Call<T> = Promise<{ data?: T; error?: unknown; response: Response }>

export const client = createClient<paths>({ baseUrl: '/', fetch: send })

function said(error: unknown): Refusal {
  if (error instanceof LostChange) return LOST_CHANGE
  return error instanceof NotSent ? NOT_SENT : NO_ANSWER
}

/** Wait for a call of `client` and sort its outcome; a call that never arrived is a refusal too. */
export async function ask<T>(call: Call<T>): Promise<Answer<T>> {
  try {
    const { data, error, response } = await call
    if (response.ok) return { ok: true, data: data as T }
    const refusal = (error as { error?: Refusal } | undefined)?.error ?? NO_ANSWER
    return { ok: false, status: response.status, refusal, body: error }
  } catch (error) {
    return { ok: false, status: 0, refusal: said(error), body: null }
  }
}
