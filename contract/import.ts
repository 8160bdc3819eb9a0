import { z } from './zod'
import { MOULD_MATERIALS, type MouldMaterial } from '~core/setting/body'
import type { BagRow, MouldRow, PourRow } from '~core/formats/table-in'
import { DEFECTS, type DefectId } from '~core/pour/defects'
import { IMPORT_COUNTS, IMPORT_KINDS, IMPORT_STATES, type ImportCounts } from './import-state'
import { powderClassIdSchema } from './powder-class'

/** Rows of somebody's table, as they were read in the browser; checked again here. */
export const MOST_ROWS = 1000
const name = z.string().trim().min(1).max(80),
  note = z.string().max(2000),
  count = z.int().min(0).max(100_000).optional()
const rows = <T extends z.ZodType>(row: T) =>
  z.array(row).min(1, 'There is no row to take in.').max(
    MOST_ROWS,
    `At most ${MOST_ROWS} rows at a time; cut the table in two.`,
  )
const mould = z.object({
  name,
  volume: z.number().positive().max(1),
  material: z.enum(Object.keys(MOULD_MATERIALS) as [MouldMaterial, ...MouldMaterial[]]),
  copies: z.int().min(1).max(1000).optional(),
  life: z.int().min(1).max(100_000).optional(),
  cost: z.number().min(0).max(1e6).optional(),
  note,
}) satisfies z.ZodType<MouldRow>
const bag = z.object({
  name,
  classId: powderClassIdSchema,
  price: z.number().min(0).max(1e5).optional(),
  left: z.number().min(0).max(5000).optional(),
  opened: z.iso.date().optional(),
  note,
}) satisfies z.ZodType<BagRow>
const pour = z.object({
  date: z.iso.date().refine(d => d >= '2000-01-01' && d < '2100-01-01', 'Pours are kept from the year 2000 on.'),
  mould: z.uuid(),
  pieces: z.int().min(1).max(200),
  bag: z.uuid().optional(),
  classId: powderClassIdSchema,
  water: z.number().positive().max(5000).optional(),
  powder: z.number().positive().max(5000).optional(),
  good: count,
  second: count,
  waste: count,
  defects: z.array(z.enum(DEFECTS.map(d => d.id) as [DefectId, ...DefectId[]])).max(20),
  note,
}).refine(
  p => (p.good ?? 0) + (p.second ?? 0) + (p.waste ?? 0) <= p.pieces,
  'More pieces came out than were cast.',
) satisfies z.ZodType<PourRow>

const file = z.string().max(200).default('')
export const importSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('moulds'), file, rows: rows(mould) }),
  z.object({ kind: z.literal('bags'), file, rows: rows(bag) }),
  z.object({ kind: z.literal('pours'), file, rows: rows(pour) }),
])
export type ImportRows = z.infer<typeof importSchema>

export const importJobSchema = z.strictObject({
  id: z.uuid(),
  kind: z.enum(IMPORT_KINDS),
  /** Of the file. */
  name: z.string(),
  /** The person who began it. */
  by: z.uuid(),
  state: z.enum(IMPORT_STATES),
  /** Of what it does now, 0 to 1. */
  share: z.number().min(0).max(1),
  counts: z.strictObject(Object.fromEntries(IMPORT_COUNTS.map(k => [k, z.int().min(0)])) as
    Record<keyof ImportCounts, z.ZodInt>),
  /** Why it was refused or broke off, and at which row. */
  fault: z.strictObject({ sentence: z.string(), field: z.string().optional() }).optional(),
  /** Things of it that could be taken out again. */
  things: z.int().min(0),
  madeAt: z.number(),
})
export type ImportJob = z.infer<typeof importJobSchema>
/** It goes on by itself; this is how it is asked for. */
export const importBegun = z.strictObject({ id: z.uuid() })
