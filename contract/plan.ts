import { z } from './zod'
import type { Plan } from '~core/plan/types'
import { ADDITIONS, type AdditionId } from '~core/gypsum/additions'
import { WAYS_IN } from '~core/gypsum/ways-in'
import { END_USES, type EndUseId } from '~core/gypsum/end-use'
import { STIR_PACES, STIR_TOOLS, type StirPace, type StirTool } from '~core/gypsum/stirring'
import { SCHOOLS, type SchoolId } from '~core/gypsum/schools'
import { SETTING_PLACES, type SettingPlaceId } from '~core/setting/body'
import { BUBBLE_WAYS } from '~core/plan/bubbles'
import { CLOTHS, type ClothId } from '~core/plan/batches/cloth'
import { COAT_WAYS, MOST_COATS, type CoatWay } from '~core/plan/batches/coats'
import { powderClassIdSchema } from './powder-class'
import { MOST_INT } from './limits'
import { humidity, skyId, standingSchema } from './standing'

export const PLAN_SCHEMA_VERSION = 1

const ids = <T extends string>(list: readonly { readonly id: T }[]) => list.map(x => x.id) as [T, ...T[]]
const keysOf = <T extends string>(table: Readonly<Record<T, unknown>>) => Object.keys(table) as [T, ...T[]]
const finite = z.number('This must be a number.')

/** A plan as it crosses a boundary. Bounds only keep out nonsense; whether it can be poured is for the core to say. */
export const planSchema = z.object({
  name: z.string().trim().max(120, 'Keep the name under 120 characters.'),
  endUse: z.enum(ids<EndUseId>(END_USES)),
  fills: z.array(
    z.object({
      mould: z.uuid(),
      count: z.int('Whole casts only.').min(1, 'At least one cast.').max(1000, 'At most 1 000 casts.'),
    }),
  ).max(100, 'A plan holds at most 100 kinds of mould.'),
  overflow: z.string().max(80).optional(),
  classId: powderClassIdSchema,
  bag: z.uuid().optional(),
  school: z.enum(ids<SchoolId>(SCHOOLS)),
  ratio: finite.min(0.05, 'That is too little water for any gypsum.').max(3, 'That is more water than any mix holds.'),
  scoop: z.object({
    volume: finite.positive('A scoop has to hold more than zero.').max(0.05),
    filling: z.enum(['loose', 'tapped']),
    perWater: finite.min(0.25).max(10),
  }),
  measures: z.object({
    scale: finite.positive('A scale has some step.').max(1, 'That is no scale for plaster.'),
    jug: z.object({
      step: finite.positive('A jug has some lines.').max(0.005, 'That is no jug for plaster.'),
      width: finite.positive('A jug has some width.').max(1, 'That is no jug.'),
    }).optional(),
  }).optional(),
  waterTemperature: finite.min(-20).max(110),
  roomTemperature: finite.min(-30).max(60),
  bucket: z.uuid().optional(),
  losses: finite.min(0, 'Losses cannot be negative.').max(1, 'More than half of the mix would be lost.'),
  soakMinutes: finite.min(0).max(60, 'An hour is the longest soak.'),
  stir: z.object({
    tool: z.enum(Object.keys(STIR_TOOLS) as [StirTool, ...StirTool[]]),
    minutes: finite.min(0).max(60),
    pace: z.enum(Object.keys(STIR_PACES) as [StirPace, ...StirPace[]]).optional(),
  }),
  bubbles: z.enum(keysOf(BUBBLE_WAYS)).optional(),
  hands: z.union([z.literal(1), z.literal(2)]).optional(),
  batchesAtLeast: z.int().min(1).max(400).optional(),
  additions: z.array(z.object({
    id: z.enum(ids<AdditionId>(ADDITIONS)), share: finite.min(0).max(2), way: z.enum(WAYS_IN).optional(),
  })).max(12),
  sets: z.object({
    place: z.enum(ids<SettingPlaceId>(SETTING_PLACES)),
    humidity,
    sky: skyId.optional(),
  }).optional(),
  dries: standingSchema.optional(),
  groundTemperature: finite.min(-30).max(60).optional(),
  openAfter: finite.min(0, 'Time runs forward.').max(7 * 86_400, 'A week is the longest.').optional(),
  secondCoatAfter: finite.min(0, 'Time runs forward.').max(7 * 86_400, 'A week is the longest.').optional(),
  coats: z.object({
    way: z.enum(ids<CoatWay>(COAT_WAYS)),
    shares: z.array(finite.min(0).max(1e3)).min(1).max(MOST_COATS),
    cloth: z.object({
      kind: z.enum(ids<ClothId>(CLOTHS)),
      coat: z.int().min(1).max(MOST_COATS),
      width: finite.min(0).max(20),
      length: finite.min(0).max(20),
      layers: z.int().min(1).max(6),
      strip: z.object({ width: finite.min(0.005).max(5), length: finite.min(0.005).max(20) }).optional(),
    }).optional(),
    wall: finite.min(0).max(0.2, 'A wall of 200 mm is no longer hollow.').optional(),
    areas: z.array(z.object({
      name: z.string().trim().min(1, 'Give the area a name.').max(60),
      width: finite.positive('An area has to be more than zero.').max(20),
      length: finite.positive('An area has to be more than zero.').max(20),
      thickness: z.array(finite.min(0).max(0.5)).min(1).max(MOST_COATS),
      radius: finite.min(0.01, 'A curve tighter than 10 mm is an edge, not an area.').max(20).optional(),
    })).min(1).max(40).optional(),
  }).optional(),
  known: z.object({ what: z.enum(['moulds', 'powder', 'water']), amount: finite.min(0).max(5000) }),
}) satisfies z.ZodType<Plan>

export interface SavedPlan {
  readonly id: string
  readonly plan: Plan
  readonly revision: number
  /** The change of this browser that is laid over it; the server never says one. */
  readonly stamp?: string
  readonly updatedAt: number
}
export const savePlanSchema = z.object({ plan: planSchema, revision: z.int().min(0).max(MOST_INT) })
