import { z } from './zod'
import { ADDITIONS, type AdditionId } from '~core/gypsum/additions'
import { WAYS_IN } from '~core/gypsum/ways-in'
import {
  CAST_SHAPES,
  MOULD_MATERIALS,
  SURROUNDINGS,
  type CastShape,
  type MouldMaterial,
  type Surroundings,
} from '~core/setting/body'
import { DRIVING, type Driving } from '~core/setting/flow'
import { STIR_TOOLS, type StirTool } from '~core/gypsum/stirring'
import type { LabMix } from '~core/lab/mix'
import { powderClassIdSchema } from './powder-class'

const keys = <T extends string>(record: Readonly<Record<T, unknown>>) => Object.keys(record) as [T, ...T[]]

/** A lab mix as the browser keeps it. Bounds only keep out nonsense; what can be worked out is for the core to say. */
const labMixSchema = z.object({
  classId: powderClassIdSchema,
  ratio: z.number().min(0.05).max(3),
  waterTemperature: z.number().min(-20).max(110),
  roomTemperature: z.number().min(-30).max(60),
  soak: z.number().min(0).max(7200),
  stir: z.object({ tool: z.enum(keys<StirTool>(STIR_TOOLS)), minutes: z.number().min(0).max(60) }),
  additions: z.array(
    z.object({
      id: z.enum(ADDITIONS.map(a => a.id) as [AdditionId, ...AdditionId[]]),
      share: z.number().min(0).max(2),
      way: z.enum(WAYS_IN).optional(),
    }),
  ).max(12),
  dirt: z.number().min(0).max(0.2),
  section: z.number().positive().max(1),
  mould: z.enum(keys<MouldMaterial>(MOULD_MATERIALS)),
  shape: z.enum(keys<CastShape>(CAST_SHAPES)),
  behind: z.enum(keys<Surroundings>(SURROUNDINGS)),
  driving: z.enum(keys<Driving>(DRIVING)),
}) satisfies z.ZodType<LabMix>

/** The Lab as it was left: up to four mixes, the first is the one the others are held against. */
export const labSchema = z.object({ mixes: z.array(labMixSchema).min(1).max(4), chosen: z.int().min(0).max(3) })
