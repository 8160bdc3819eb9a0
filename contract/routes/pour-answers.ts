import { END_USES } from '~core/gypsum/end-use'
import { SCHOOLS, type SchoolId } from '~core/gypsum/schools'
import type { Confirmed } from '~core/logbook/why'
import type { Pace } from '~core/plan/batches/pace'
import type { Taught } from '~core/plan/types'
import { CAUSE_IDS } from '~core/pour/causes'
import { DEFECTS, type DefectId } from '~core/pour/defects'
import type { PourEvent } from '~core/pour/events'
import type { CastSummary, PourSummary } from '~core/pour/projection'
import { powderClassIdSchema } from '../powder-class'
import { characterSchema } from '../taught'
import {
  ENTRY_FAULTS,
  sentEventSchema,
  type CastRow,
  type EventsAnswer,
  type Fate,
  type PourAnswer,
  type PourRow,
  type TakenAnswer,
} from '../pour'
import { standingSchema } from '../standing'
import { RUNS } from '../versions'
import { z } from '../zod'
import { idsOf, moment } from './route'

/** Pours and casts as the server tells of them. */

const defect = z.enum(idsOf<DefectId>(DEFECTS)), cause = z.enum(CAUSE_IDS)
const verdicts = ['good', 'second', 'waste'] as const
const seconds = z.number(), ratio = z.number(), celsius = z.number()

export const taught: z.ZodType<Taught> = z.strictObject({
  mean: z.number(), sd: z.number(), at: moment.optional(), model: z.string().optional(),
  character: characterSchema.optional(),
})
export const confirmedCauses: z.ZodType<Confirmed> = z.array(z.strictObject({ defect, cause, times: z.int() }))

const learnt = z.strictObject({ mean: z.number(), sd: z.number(), steps: z.int() })
/** Of who asks. */
export const pace: z.ZodType<Pace> = z.strictObject({
  sift: learnt.optional(), stir: learnt.optional(), pour: learnt.optional(),
})

const glyph = z.array(z.strictObject({
  id: z.enum(['sift', 'soak', 'stir', 'fill', 'set', 'warm', 'open', 'dry']),
  word: z.string(),
  tone: z.enum(['powder', 'water', 'mix', 'air', 'heat', 'set']),
  low: seconds,
  value: seconds,
  high: seconds,
  actual: seconds.optional(),
}))
export const pourSummary: z.ZodType<PourSummary> = z.strictObject({
  name: z.string(),
  status: z.enum(['readying', 'pouring', 'setting', 'drying', 'finished', 'abandoned']),
  classId: powderClassIdSchema,
  powder: z.string(),
  school: z.enum(idsOf<SchoolId>(SCHOOLS)),
  bag: z.string().optional(),
  endUse: z.enum(idsOf(END_USES)),
  moulds: z.array(z.strictObject({ id: z.uuid().optional(), name: z.string(), count: z.int() })),
  batches: z.int(),
  ratio: z.strictObject({ planned: ratio, low: ratio, high: ratio, actual: ratio.optional() }),
  startedAt: moment.optional(),
  wetAt: moment.optional(),
  endedAt: moment.optional(),
  lastAt: moment.optional(),
  step: z.strictObject({ stage: z.string(), instruction: z.string(), batch: z.int() }),
  bucket: z.strictObject({
    vessel: z.strictObject({ bottom: z.number(), top: z.number(), height: z.number() }),
    water: z.number(), mix: z.number(), settled: z.number(),
  }).optional(),
  verdicts: z.record(z.enum(verdicts), z.int()),
  defects: z.array(defect),
  glyph,
  causes: z.array(z.strictObject({ defect, cause })).optional(),
  taught: z.array(taught).optional(),
  pace: z.array(z.strictObject({ step: z.enum(['sift', 'stir', 'pour']), who: z.string(), took: z.number() })).optional(),
  bagId: z.uuid().optional(),
  powderUsed: z.number().optional(),
  daysOnly: z.literal(true).optional(),
  temperatures: z.strictObject({ water: celsius, room: celsius }).optional(),
  cost: z.strictObject({ total: z.number(), pieces: z.int() }).optional(),
})

const drying = z.strictObject({
  standing: standingSchema,
  since: moment,
  weighed: z.int(),
  lastMass: z.number().optional(),
  wettedAt: moment.optional(),
  steady: z.strictObject({
    steady: z.boolean(),
    dry: z.boolean(),
    code: z.enum(['losing', 'near-dry', 'air-would-take', 'full-of-water']),
  }).optional(),
  notHere: z.strictObject({
    code: z.enum(['damp-ground', 'rain', 'freezes', 'air-too-damp', 'dew', 'air-takes-none', 'too-slow']),
    room: z.number(),
  }).optional(),
  frost: z.literal(true).optional(),
  damp: z.array(z.tuple([moment, z.number()]).readonly()).readonly().optional(),
})
export const castSummary: z.ZodType<CastSummary> = z.strictObject({
  id: z.string(),
  label: z.string(),
  mould: z.string(),
  mouldId: z.uuid(),
  material: z.string(),
  took: z.number().optional(),
  status: z.enum(['waiting', 'setting', 'opened', 'judged', 'finished']),
  powder: z.string(),
  ratio,
  endUse: z.enum(idsOf(END_USES)),
  readyWord: z.string(),
  filledAt: moment.optional(),
  openFrom: moment.optional(),
  openTo: moment.optional(),
  openedAt: moment.optional(),
  readyFrom: moment.optional(),
  readyTo: moment.optional(),
  verdict: z.enum(verdicts).optional(),
  defects: z.array(defect),
  note: z.string(),
  finishedAt: moment.optional(),
  drying: drying.optional(),
})

export const pourRow: z.ZodType<PourRow> = z.strictObject({ id: z.uuid(), seq: z.int(), summary: pourSummary })
export const castRow: z.ZodType<CastRow> = z.strictObject({
  pour: z.uuid(),
  pourName: z.string(),
  cast: castSummary,
})

/** As it was sent, and whose it is. */
export const pourEvent: z.ZodType<PourEvent> = z.intersection(
  sentEventSchema,
  z.looseObject({ pour: z.uuid(), actor: z.string() }),
)
const events = { events: z.array(pourEvent), seq: z.int() }
export const eventsAnswer: z.ZodType<EventsAnswer> = z.strictObject(events)
const fate: z.ZodType<Fate> = z.discriminatedUnion('fate', [
  z.strictObject({ id: z.string(), fate: z.enum(['stored', 'known']) }),
  z.strictObject({ id: z.string(), fate: z.literal('refused'), code: z.enum(ENTRY_FAULTS), sentence: z.string() }),
])
export const takenAnswer: z.ZodType<TakenAnswer> = z.strictObject({ ...events, fates: z.array(fate) })
export const pourAnswer: z.ZodType<PourAnswer> = z.strictObject({
  ...events,
  id: z.uuid(),
  planId: z.uuid().optional(),
  run: RUNS.schema,
  startedBy: z.string(),
})
