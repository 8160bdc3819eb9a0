import type { Plan } from '~core/plan/types'
import { planSchema } from './plan'
import { z } from './zod'

/** What is to be made by when, and with what: core/schedule makes rounds of it. Times of day in min, instants in ms. */

const MINUTES_OF_A_DAY = 1440
const ofDay = z.int().min(0).max(MINUTES_OF_A_DAY)
const hours = z.strictObject({
  name: z.string().trim().max(60),
  /** Days of the week, Monday 1 to Sunday 7. */
  days: z.array(z.int().min(1).max(7)).max(7),
  from: ofDay,
  to: ofDay,
}).refine(h => h.from < h.to, 'The day has to end after it begins.')

const line = z.strictObject({
  mould: z.uuid(),
  pieces: z.int('Whole pieces only.').min(1, 'One piece at least.').max(2000, 'At most 2,000 of one shape.'),
  copies: z.int('Whole moulds only.').min(1, 'One mould at least.').max(200, 'At most 200 moulds of one shape.'),
})

export const orderSchema = z.object({
  name: z.string().trim().max(120).default(''),
  /** Powder, ratio, bucket and way of working; it fills nothing itself. */
  recipe: planSchema,
  lines: z.array(line).max(40, 'At most 40 shapes at once.'),
  /** When all is to be out. */
  due: z.number().positive(),
  people: z.array(hours).min(1, 'Somebody has to do it.').max(6, 'At most six people.'),
  /** A break that all take. */
  pause: z.strictObject({ from: ofDay, to: ofDay })
    .refine(p => p.from < p.to, 'The break has to end after it begins.').optional(),
  buckets: z.int().min(1, 'One bucket at least.').max(20),
  tables: z.int().min(1).max(10).default(1),
  /** Filled moulds that can stand at once. */
  shelf: z.int().min(1).max(2000).optional(),
  /** Opening one and making its mould ready again, and finishing one back, s. */
  opening: z.number().min(10).max(7200),
  finishing: z.number().min(0).max(3600),
  /** What is made over for what breaks, as a share. */
  spare: z.number().min(0).max(0.5).default(0),
  goal: z.enum(['soonest', 'most', 'least work']),
  /** Its buckets that were begun, each a pour of its own. */
  pours: z.array(z.uuid()).max(500, 'At most 500 buckets of one order.').default([]),
})
export type OrderBody = Omit<z.infer<typeof orderSchema>, 'recipe'> & { recipe: Plan }
