import { CAUTION_IDS, CHAIN_IDS, HELP_IDS, TASK_IDS } from '~core/job/words'
import { SIGN_IDS, type JobStep } from '~core/job/types'
import { DOOR_KINDS, SIZES } from '~core/door/kinds'
import { powderClassIdSchema } from './powder-class'
import { z } from './zod'

/** What is longer than one pour: a chain of steps with windows, core/job. Lags in min, instants in ms. */

const YEAR_MIN = 525_600
const minutes = z.number().min(0, 'No step takes less than no time.').max(YEAR_MIN, 'At most a year.')
const lag = z.number().min(-YEAR_MIN).max(YEAR_MIN, 'At most a year.')
const instant = z.number().min(0).max(4_102_444_800_000)
const id = z.string().trim().min(1).max(40)

const link = z.strictObject({
  step: id,
  at: z.enum(['start', 'end', ...SIGN_IDS]),
  least: lag.optional(),
  most: lag.optional(),
  missed: z.enum(HELP_IDS).optional(),
}).refine(l => l.least === undefined || l.most === undefined || l.least <= l.most, 'The window has to end after it begins.')

/** One step as it is kept. */
export const jobStepSchema = z.strictObject({
  id,
  kind: z.enum(['mix', 'pour', 'hand', 'until']),
  task: z.enum(TASK_IDS).optional(),
  name: z.string().trim().max(80, 'Keep the name under 80 characters.').optional(),
  minutes,
  after: z.array(link).max(10),
  like: z.strictObject({
    kind: z.enum(DOOR_KINDS), size: z.enum(SIZES), count: z.int().min(1).max(60), classId: powderClassIdSchema,
  }).optional(),
  plan: z.uuid().optional(),
  pour: z.uuid().optional(),
  began: instant.optional(),
  ended: instant.optional(),
})

export const jobSchema = z.object({
  name: z.string().trim().max(120).default(''),
  chain: z.enum(CHAIN_IDS).optional(),
  cautions: z.array(z.enum(CAUTION_IDS)).max(10).default([]),
  steps: z.array(jobStepSchema).min(1, 'A job has one step at least.').max(40, 'At most 40 steps.')
    .refine(all => new Set(all.map(s => s.id)).size === all.length, 'Two steps are the same one.')
    .refine(all => all.every(s => s.after.every(l => all.some(o => o.id === l.step))), 'A step follows one that is not there.'),
  /** Kept to begin from again: a workshop's own chain. */
  own: z.boolean().default(false),
  startedAt: instant.optional(),
  note: z.string().max(4000).default(''),
})
export type JobBody = Omit<z.infer<typeof jobSchema>, 'steps'> & { steps: JobStep[] }
