import { z } from './zod'
import type { HappeningKind, PourEvent } from '~core/pour/events'
import { DEFECTS, TROUBLES, type DefectId, type TroubleId } from '~core/pour/defects'
import { SIGNS, type Sign, type Stage } from '~core/plan/stages'
import { CAUSE_IDS } from '~core/pour/causes'
import type { FrozenRun } from '~core/plan/run'
import type { PlanWorld } from '~core/plan/types'
import type { CastSummary, PourSummary } from '~core/pour/projection'
import { bagSchema, bucketSchema, mouldSchema } from './library'
import { MOST_INT } from './limits'
import { planSchema } from './plan'
import { toldStanding } from './standing'
import { taughtSchema } from './taught'

const STAGES = [
  'gauge',
  'ready',
  'weigh',
  'sift',
  'soak',
  'stir',
  'fill',
  'clean-up',
  'set',
  'dry',
] as const satisfies readonly Stage[]
const cast = z.string().regex(/^\d{1,3}\.\d{1,3}$/, 'That is no cast of this pour.')
// From 2000 to 2100: a broken clock must not make an entry that sorts before everything.
const size = z.number().positive('It has to measure more than zero.').max(20, 'Nothing that is cast here is that large.')
const instant = z.number().min(946_684_800_000).max(4_102_444_800_000)

const envelope = {
  id: z.uuid(), batch: z.int().min(0).max(400).optional(),
  version: z.union([z.literal(1), z.literal(2), z.literal(3), z.literal(4), z.literal(5)]),
  happenedAt: instant, recordedAt: instant, device: z.string().min(1).max(64),
  deviceSeq: z.int().min(0).max(MOST_INT),
  /** The entry that was not taken, and that this one stands for. */
  mends: z.uuid().optional(),
  /** By how much its moment may be otherwise, ms. */
  doubt: z.int().min(1).max(4_102_444_800_000).optional(),
}

/** An event as a device sends it: the server adds pour and actor. */
export const sentEventSchema = z.discriminatedUnion('kind', [
  z.object({
    ...envelope,
    kind: z.literal('stage'),
    data: z.object({ stage: z.enum(STAGES), from: z.enum([...STAGES, 'unbegun']).optional() }),
  }),
  z.object({
    ...envelope,
    kind: z.literal('weighed'),
    data: z.object({
      what: z.enum(['water', 'powder']),
      mass: z.number().positive('A weight has to be more than zero.').max(5000),
      how: z.enum(['scale', 'jug', 'scoops']),
    }),
  }),
  z.object({
    ...envelope,
    kind: z.literal('jug'),
    data: z.object({ when: z.enum(['before', 'after']), mass: z.number().min(0).max(5000) }),
  }),
  z.object({
    ...envelope,
    kind: z.literal('mark'),
    data: z.object({ sign: z.enum(SIGNS.map(s => s.id) as [Sign, ...Sign[]]) }),
  }),
  z.object({ ...envelope, kind: z.literal('filled'), data: z.object({ cast }) }),
  z.object({
    ...envelope,
    kind: z.literal('leftover'),
    data: z.object({ where: z.enum(['overflow', 'bin', 'none']) }),
  }),
  z.object({ ...envelope, kind: z.literal('cleaned'), data: z.object({}) }),
  z.object({
    ...envelope,
    kind: z.literal('temperature'),
    data: z.object({
      celsius: z.number().min(-20, 'Plaster is not used that cold.').max(110, 'A mix does not get that warm.'),
      where: z.enum(['cast', 'room', 'water']),
    }),
  }),
  z.object({
    ...envelope,
    kind: z.literal('foreseen'),
    data: z.object({
      open: z.record(z.string().max(64), z.object({ from: z.number().min(0).max(1e7), to: z.number().min(0).max(1e7) }))
        .refine(o => Object.keys(o).length <= 200),
      taught: taughtSchema.optional(),
    }),
  }),
  z.object({
    ...envelope,
    kind: z.literal('trouble'),
    data: z.object({ trouble: z.enum(TROUBLES.map(t => t.id) as [TroubleId, ...TroubleId[]]) }),
  }),
  z.object({
    ...envelope,
    kind: z.literal('note'),
    data: z.object({
      text: z.string().trim().min(1, 'Write something first.').max(2000, 'Keep a note under 2 000 characters.'),
    }),
  }),
  z.object({ ...envelope, kind: z.literal('opened'), data: z.object({ cast }) }),
  z.object({
    ...envelope,
    kind: z.literal('judged'),
    data: z.object({
      cast,
      verdict: z.enum(['good', 'second', 'waste']),
      defects: z.array(z.enum(DEFECTS.map(d => d.id) as [DefectId, ...DefectId[]])).max(20),
      note: z.string().max(2000),
    }),
  }),
  z.object({
    ...envelope,
    kind: z.literal('faults'),
    data: z.object({
      cast,
      marks: z.array(
        z.object({
          defect: z.enum(DEFECTS.map(d => d.id) as [DefectId, ...DefectId[]]),
          severity: z.union([z.literal(1), z.literal(2), z.literal(3)]),
          x: z.number().min(0).max(1),
          y: z.number().min(0).max(1),
          photo: z.uuid().optional(),
        }),
      ).max(80, 'Eighty marks on one piece are enough.'),
    }),
  }),
  z.object({
    ...envelope,
    kind: z.literal('measured'),
    data: z.object({
      cast,
      what: z.string().trim().min(1, 'Say what was measured.').max(60),
      value: size,
      nominal: size.optional(),
      least: size.optional(),
      most: size.optional(),
    }),
  }),
  z.object({
    ...envelope,
    kind: z.literal('cause'),
    data: z.object({
      cast,
      defect: z.enum(DEFECTS.map(d => d.id) as [DefectId, ...DefectId[]]),
      cause: z.enum(CAUSE_IDS),
    }),
  }),
  z.object({
    ...envelope,
    kind: z.literal('placed'),
    data: toldStanding.extend({ cast }),
  }),
  z.object({
    ...envelope,
    kind: z.literal('cast-weighed'),
    data: z.object({ cast, mass: z.number().positive('A weight has to be more than zero.').max(5000) }),
  }),
  z.object({ ...envelope, kind: z.literal('felt'), data: z.object({ cast, how: z.enum(['cold', 'dry']) }) }),
  z.object({ ...envelope, kind: z.literal('wetted'), data: z.object({ cast }) }),
  z.object({ ...envelope, kind: z.literal('finished'), data: z.object({ cast }) }),
  z.object({ ...envelope, kind: z.literal('abandoned'), data: z.object({ reason: z.string().max(2000) }) }),
  z.object({ ...envelope, kind: z.literal('undo'), data: z.object({ event: z.uuid() }) }),
])
export type SentEvent = z.infer<typeof sentEventSchema>
type Unsent = Exclude<HappeningKind, SentEvent['kind']>
type Holds<T extends true> = T
/** Does not compile while a kind of entry has no schema. */
export type EveryKindIsSent = Holds<[Unsent] extends [never] ? true : { readonly without: Unsent }>

/** An entry as it arrives. Each is read for itself: one that cannot be must not hold the others. */
const arriving = z.looseObject({ id: z.string().min(1).max(64) })
export type Arriving = z.infer<typeof arriving>

/** A device's batch of events; `sentAt` on its idea of the workshop's clock, so that skew can be stored. */
export const sendEventsSchema = z.object({
  sentAt: instant,
  /** Whose entries they are; a browser may have changed hands since. */
  person: z.uuid().optional(),
  /** The device has the pour up to this number: it is told what came later. */
  after: z.int().min(0).max(MOST_INT).default(0),
  events: z.array(arriving).min(1).max(500),
})
const learntPace = z.object({
  mean: z.number().min(-3).max(3),
  sd: z.number().positive().max(2),
  steps: z.int().min(0).max(1e6),
})
const finite = z.number().min(-1e6).max(1e6)
const bagCharacter = z.object({
  mean: z.tuple([finite, finite, finite]).readonly(),
  root: z.tuple([finite, finite, finite, finite, finite, finite]).readonly(),
})
/** Moulds, bucket and bag of a plan, and the pace of who planned, as a browser had them. */
const worldSchema = z.object({
  moulds: z.array(mouldSchema.extend({ id: z.uuid() })).max(200),
  bucket: bucketSchema.extend({ id: z.uuid() }).optional(),
  day: z.int().min(1).max(366).optional(),
  pace: z.object({ sift: learntPace.optional(), stir: learntPace.optional(), pour: learntPace.optional() }).optional(),
  bag: bagSchema.extend({
    id: z.uuid(),
    rate: z.object({
      mean: z.number().min(-5).max(5),
      sd: z.number().positive().max(50),
      batches: z.int().min(0).max(1e6),
      character: bagCharacter.optional(),
    }).optional(),
  }).optional(),
})
type Whole<T> = T extends number ? number : T extends object ? { [K in keyof T]-?: Whole<Exclude<T[K], undefined>> } : T
type Holding<Of, T extends Of> = T
/** Does not compile while something is planned with that is not taken in: the plan would be divided otherwise here. */
export type WorldTaken = Holding<Whole<PlanWorld>, Whole<z.output<typeof worldSchema>>>
export const startPourSchema = z.object({
  id: z.uuid(),
  planId: z.uuid().optional(),
  plan: planSchema,
  startedAt: instant,
  device: z.string().min(1).max(64),
  deviceSeq: z.int().min(0).max(MOST_INT),
  eventId: z.uuid(),
  /** Who began it; a browser may have changed hands since. */
  person: z.uuid().optional(),
  /** On the device's idea of the workshop's clock, when it is sent: perhaps long after it was begun. */
  sentAt: instant.optional(),
  /**
   * A pour that was frozen in the browser: from what it had, into so many casts in each batch. All else is worked out
   * again.
   */
  frozen: z.object({ world: worldSchema, casts: z.array(z.int().min(0).max(1000)).min(1).max(400) }).optional(),
})
export type StartPour = z.infer<typeof startPourSchema>

export interface EventsAnswer {
  readonly events: readonly PourEvent[]
  readonly seq: number
}
/**
 * Why an entry is not taken: it cannot be read, names a batch or a cast that its pour has not, or has the id of an
 * entry of another pour.
 */
export const ENTRY_FAULTS = ['unreadable', 'batch', 'cast', 'elsewhere', 'full'] as const
type EntryFault = typeof ENTRY_FAULTS[number]
/** What became of one entry. Only what is `stored` or `known` may leave the device that sent it. */
export type Fate
  = | { readonly id: string, readonly fate: 'stored' | 'known' }
    | { readonly id: string, readonly fate: 'refused', readonly code: EntryFault, readonly sentence: string }
/** What is answered to entries: what became of each, in their order, and what the device does not have yet. */
export interface TakenAnswer extends EventsAnswer {
  readonly fates: readonly Fate[]
}
export interface PourAnswer extends EventsAnswer {
  readonly id: string
  readonly planId?: string
  readonly run: FrozenRun
  readonly startedBy: string
}
export interface PourRow {
  readonly id: string
  /** The number of the last entry that it tells of. */
  readonly seq: number
  readonly summary: PourSummary
}
export interface CastRow {
  readonly pour: string
  readonly pourName: string
  readonly cast: CastSummary
}

/**
 * What the database tells the servers, and they the browsers: that something changed, never what, but for the entries
 * of one pour, which a server adds where they are few. `after` and `seq` are the pour's last entry before and now: who
 * has it up to `after` needs no more than `events`.
 */
export type LiveMessage
  = | {
    readonly what: 'pour'
    readonly pour: string
    readonly after: number
    readonly seq: number
    readonly events?: readonly PourEvent[]
  }
  // `pours`: many at once, as a table brings them.
  | { readonly what: 'clock' | 'library' | 'plans' | 'people' | 'pours' }
  // Taken out again, with the file that brought them.
  | { readonly what: 'gone', readonly pours: readonly string[] }
  // What a class is given, or who can be in it; and, apart from that, where its seats are: told to who leads alone.
  | { readonly what: 'class' | 'seats', readonly class: string }
/** The first that a stream says: which database it is, where it stands now, and which build of the product. */
export interface Hello { readonly epoch: string, readonly build: string }
/** More than this is not sent to every browser, bytes: they ask for it. */
export const LIVE_MOST_BYTES = 2000
