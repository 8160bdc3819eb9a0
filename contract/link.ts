import { z } from './zod'
import type { JobStep, PourTimes } from '~core/job/types'
import type { UnitPreferences } from '~core/units/units'
import type { PourAnswer } from './pour'

/** Links that open one thing to whoever has them: a wall display, a calendar. */
export const LINK_KINDS = ['wall', 'calendar'] as const
export type LinkKind = typeof LINK_KINDS[number]

export const newLinkSchema = z.object({
  kind: z.enum(LINK_KINDS),
  name: z.string().trim().min(1, 'Say what the link is for.').max(60, 'Keep it under 60 characters.'),
})
/** A link’s secret: 32 bytes, as the address spells them. */
export const tokenSchema = z.string().regex(/^[\w-]{43}$/, 'This is no link of a workshop.')

export interface LinkFacts {
  readonly id: string
  readonly kind: LinkKind
  readonly name: string
  readonly madeAt: number
}
/** Told once, when it is made: only a hash of the secret is kept. */
export interface NewLink extends LinkFacts { readonly token: string }

/** A job as the room sees it: its steps and marks, and what is expected of the pours that were begun for it. */
export interface WallJob {
  readonly id: string
  readonly name: string
  readonly steps: readonly JobStep[]
  readonly pours: readonly (PourTimes & { readonly step: string })[]
}

/** What a wall shows: what is live, without who did what and without anybody’s notes. */
export interface WallAnswer {
  readonly workshop: string
  readonly units: UnitPreferences
  readonly clock: { readonly now: number, readonly rate: number }
  readonly pours: readonly Pick<PourAnswer, 'id' | 'run' | 'events'>[]
  readonly jobs: readonly WallJob[]
}
