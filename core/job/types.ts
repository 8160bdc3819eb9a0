import type { DoorKindId, SizeId } from '../door/kinds'
import type { PowderClassId } from '../gypsum/powders'
import type { Instant } from '../pour/events'
import type { Seconds } from '../units/quantity'
import type { HelpId, TaskId } from './words'

/** A job: what is longer than one pour. A chain of steps with windows between them. */

/** Mixed and placed by itself; a pour of the product; a task of the hands; a state that comes by itself. */
export type StepKind = 'mix' | 'pour' | 'hand' | 'until'
/** What a pour's own forecast tells of it, counted from when powder met water. */
export type SignId = 'gloss' | 'warmest' | 'open' | 'dry'
export const SIGN_IDS = ['gloss', 'warmest', 'open', 'dry'] as const satisfies readonly SignId[]

/** So long after another step began or ended, or after a sign of its pour. */
export interface Link {
  readonly step: string
  readonly at: 'start' | 'end' | SignId
  /** Minutes at least and at most; before the sign where negative. */
  readonly least?: number | undefined
  readonly most?: number | undefined
  /** What helps once it is too late. */
  readonly missed?: HelpId | undefined
}

/** A pour as the door works it out, until a plan of one's own is chosen. */
export interface PourLike {
  readonly kind: DoorKindId
  readonly size: SizeId
  readonly count: number
  readonly classId: PowderClassId
}

export interface JobStep {
  /** Its own within the job. */
  readonly id: string
  readonly kind: StepKind
  /** What is done, in the product's words; `name` stands instead where somebody wrote their own. */
  readonly task?: TaskId | undefined
  readonly name?: string | undefined
  /** How long hands are at it, or how long it is waited; a pour's is its own. */
  readonly minutes: number
  readonly after: readonly Link[]
  readonly like?: PourLike | undefined
  readonly plan?: string | undefined
  /** The pour that it became. */
  readonly pour?: string | undefined
  readonly began?: Instant | undefined
  readonly ended?: Instant | undefined
}

/** What is expected, or has happened, s after powder met water. */
export interface Expected {
  readonly low: Seconds
  readonly value: Seconds
  readonly high: Seconds
  readonly actual?: Seconds | undefined
}
/** A step's pour: what its forecast says, and when it began if it has. */
export interface PourTimes {
  readonly wetAt?: Instant | undefined
  readonly filled: Expected
  readonly signs: Readonly<Partial<Record<SignId, Expected>>>
}
