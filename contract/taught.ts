import type { Taught } from '~core/plan/types'
import { z } from './zod'

/** What a pour or a cup taught of its bag, as it is kept with it. */
const precision = z.number().min(-1e6).max(1e6)
export const characterSchema = z.object({
  precision: z.tuple([precision, precision, precision, precision, precision, precision]).readonly(),
  pull: z.tuple([precision, precision, precision]).readonly(),
}) satisfies z.ZodType<Taught['character']>

export const taughtSchema = z.object({
  mean: z.number().min(-5).max(5),
  sd: z.number().positive().max(50),
  model: z.string().max(40).optional(),
  character: characterSchema.optional(),
})
