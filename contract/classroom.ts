import { LESSON_IDS, type LessonId } from '~core/lessons/types'
import type { Page } from '~core/lessons/page'
import type { FrozenRun } from '~core/plan/run'
import type { Stage } from '~core/plan/stages'
import type { PourEvent } from '~core/pour/events'
import { SCENARIO_IDS, type ScenarioId } from '~core/practice/scenarios'
import type { UnitPreferences } from '~core/units/units'
import { pageSchema } from './page'
import { z } from './zod'

/** A class: a teacher, a code, and seats that are taken with it. Nobody in it has an account. */

/** How long a class is open at most, hours; how long what was poured in it is still taken, days. */
export const MOST_HOURS = 24, LATE_DAYS = 7
export const MOST_SEATS = 120, MOST_QUESTIONS = 20

const className = z.string().trim().min(1, 'Give the class a name.').max(60, 'Keep the name under 60 characters.')
/** Names are shown as they are, on one line, and by nothing else. */
export const seatName = z.string().trim().min(1, 'Type your first name.').max(24, 'Keep the name under 24 letters.')
  .regex(/^[^\r\n\t<>]*$/, 'Letters and gaps only, please.')

const seed = z.int().min(0).max(1e9)
/** What a class is given to do, one thing at a time. `none`: listen. */
export const taskSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('none') }),
  z.object({ kind: z.literal('scenario'), id: z.enum(SCENARIO_IDS as [ScenarioId, ...ScenarioId[]]), seed }),
  z.object({ kind: z.literal('lesson'), id: z.enum(LESSON_IDS) }),
  z.object({ kind: z.literal('test'), seed, questions: z.int().min(1).max(MOST_QUESTIONS) }),
  /** A page of the teacher’s own, as it was when it was given; as a test, its questions alone. */
  z.object({ kind: z.literal('page'), page: pageSchema, seed, test: z.boolean() }),
  z.object({ kind: z.literal('kits') }),
])
export type Task
  = | { readonly kind: 'none' | 'kits' }
    | { readonly kind: 'scenario', readonly id: ScenarioId, readonly seed: number }
    | { readonly kind: 'lesson', readonly id: LessonId }
    | { readonly kind: 'test', readonly seed: number, readonly questions: number }
    | { readonly kind: 'page', readonly page: Page, readonly seed: number, readonly test: boolean }

export const openClassSchema = z.object({ name: className, hours: z.number().min(0.25).max(MOST_HOURS).default(3) })
export const changeClassSchema = z.object({
  name: className.optional(),
  shut: z.boolean().optional(),
  paused: z.boolean().optional(),
  kept: z.boolean().optional(),
  ended: z.literal(true).optional(),
  /** Whoever asks becomes its teacher. */
  taken: z.literal(true).optional(),
  task: taskSchema.optional(),
})
export type ChangeClass = z.infer<typeof changeClassSchema>
export const addSeatsSchema = z.object({ names: z.array(seatName).min(1, 'Type a name.').max(60) })
export const kitsSchema = z.object({
  plan: z.uuid(),
  colours: z.array(z.string().trim().min(1).max(24)).max(12).default([]),
})
/** One step for every kit whose seat has no phone. */
export const leadSchema = z.object({ step: z.int().min(0).max(200) })
export const joinSchema = z.object({ code: z.string().max(40), name: seatName })

/** Where a seat is: in practice, in a lesson or test, at a kit. */
export const DOINGS = [
  'began', 'gauge', 'ready', 'weigh', 'sift', 'soak', 'stir', 'fill', 'clean-up', 'set', 'dry', 'opened', 'reads', 'asked', 'done',
] as const
export type DoingId = typeof DOINGS[number]
/** Why somebody should come and look: they ask for help; the mix stands and stiffens; something went wrong. */
export const LOOKS = ['help', 'stiff', 'trouble'] as const
export type Look = typeof LOOKS[number]
export const doingSchema = z.object({
  task: z.int().min(0), at: z.enum(DOINGS),
  of: z.int().min(0).max(100).optional(), done: z.int().min(0).max(100).optional(),
  look: z.enum(LOOKS).optional(),
})
export type Doing = z.infer<typeof doingSchema>

/** What came of a task. A test, and a page, is marked by the server from what was chosen. */
export const resultSchema = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('scenario'), task: z.int(), verdict: z.enum(['good', 'second', 'waste']),
    named: z.array(z.string().max(24)).max(2), minutes: z.number().min(0).max(1e5),
  }),
  z.object({ kind: z.literal('lesson'), task: z.int(), right: z.int().min(0).max(100), of: z.int().min(0).max(100) }),
  z.object({
    kind: z.enum(['test', 'page']), task: z.int(), chosen: z.array(z.int().min(-1).max(9)).max(MOST_QUESTIONS),
  }),
])
export type SentResult = z.infer<typeof resultSchema>
export type ResultFacts
  = | {
    readonly kind: 'scenario'
    readonly id: ScenarioId
    readonly verdict: 'good' | 'second' | 'waste'
    readonly named: readonly string[]
    readonly minutes: number
  }
  | { readonly kind: 'lesson', readonly id: LessonId, readonly right: number, readonly of: number }
  | { readonly kind: 'test', readonly right: number, readonly of: number }
  | { readonly kind: 'page', readonly name: string, readonly right: number, readonly of: number }

/** What a seat may tell of its own kit; a teacher or member may tell the rest later. */
export const SEAT_KINDS = ['stage', 'weighed', 'mark', 'filled', 'trouble', 'note'] as const

export interface ClassRow {
  readonly id: string
  readonly name: string
  readonly openedAt: number
  readonly endsAt: number
  readonly over: boolean
  readonly seats: number
}
/** A seat's kit: its label begins with the pour's id, which is fixed before powder meets water. */
export interface KitFacts {
  readonly pour: string
  readonly colour: string
  readonly begun: boolean
  readonly stage?: Stage
  readonly casts: readonly { readonly id: string, readonly label: string, readonly verdict?: string }[]
}
export interface SeatFacts {
  readonly id: string
  readonly number: number
  readonly name: string
  readonly phone: boolean
  readonly heardAt?: number
  readonly doing?: Doing
  readonly results: readonly (ResultFacts & { readonly task: number })[]
  readonly kit?: KitFacts
}
export interface ClassAnswer extends ClassRow {
  readonly teacher: string
  /** Whether whoever asks may lead it. */
  readonly leads: boolean
  readonly code?: string
  readonly shut: boolean
  readonly paused: boolean
  readonly kept: boolean
  readonly task: Task
  /** How many tasks there were; what is told of an earlier one is not of this. */
  readonly tasks: number
  readonly seats: number
  readonly all: readonly SeatFacts[]
  /** What one kit is: a plan frozen; and the step all without a phone are at. */
  readonly kit?: { readonly plan: string, readonly run: FrozenRun, readonly powder: number, readonly led: number }
  readonly now: number
}
/** What a seat sees: itself, the task, and its own kit. */
export interface SeatAnswer {
  readonly seat: { readonly id: string, readonly number: number, readonly name: string }
  readonly class: {
    readonly name: string
    readonly endsAt: number
    readonly over: boolean
    readonly paused: boolean
    readonly task: Task
    readonly tasks: number
  }
  readonly units: UnitPreferences
  readonly clock: { readonly now: number, readonly rate: number }
  readonly kit?: {
    readonly pour: string
    readonly colour: string
    readonly run: FrozenRun
    readonly begun: boolean
    readonly events: readonly PourEvent[]
    readonly seq: number
  }
}
