import { z } from './zod'
import { MOULD_MATERIALS, type MouldMaterial } from '~core/gypsum/body'
import { POWDER_CLASSES, type PowderClassId } from '~core/gypsum/powders'

const keys = <T extends string>(record: Readonly<Record<T, unknown>>) => Object.keys(record) as [T, ...T[]]
const name = z.string().trim().min(1, 'Give it a name.').max(80, 'Keep the name under 80 characters.')
const length = (max: number, what: string) => z.number().positive(`${what} is more than nothing.`).max(max, `${what} is out of reason here.`)

export const powderClassIdSchema = z.enum(POWDER_CLASSES.map(p => p.id) as [PowderClassId, ...PowderClassId[]])

export const mouldSchema = z.object({
  name,
  material: z.enum(keys<MouldMaterial>(MOULD_MATERIALS)),
  volume: z.object({ value: z.number().positive('A mould holds more than nothing.').max(1, 'A mould holds at most 1 000 l here.'), low: z.number().positive(), high: z.number().positive().max(2) })
    .refine(v => v.low <= v.value && v.value <= v.high, 'The range of the volume must hold the volume itself.'),
  mouth: z.object({ shape: z.enum(['round', 'rectangular']), width: length(5, 'The opening'), length: length(5, 'The opening') }),
  wall: length(0.5, 'The wall'),
  section: length(1, 'The thickest part'),
  fragile: z.boolean(),
  note: z.string().max(2000).default(''),
})

export const bucketSchema = z.object({ name, vessel: z.object({ bottom: length(2, 'The bottom'), top: length(2, 'The top'), height: length(2, 'The height') }) })

export const bagSchema = z.object({
  name, classId: powderClassIdSchema, uncertain: z.boolean(),
  /** Mass left, kg. */
  left: z.number().min(0, 'A bag cannot hold less than nothing.').max(5000).optional(),
  opened: z.iso.date().optional(),
  bulk: z.object({ low: z.number().min(200, 'Powder is not that light.').max(2500), high: z.number().min(200).max(2500, 'Powder is not that heavy.') }).refine(b => b.low < b.high, 'The range needs a lower and a higher end.').optional(),
  note: z.string().max(2000).default(''),
})

export const LIBRARY = { mould: mouldSchema, bucket: bucketSchema, bag: bagSchema } as const
export type LibraryKind = keyof typeof LIBRARY
export const LIBRARY_KINDS = ['mould', 'bucket', 'bag'] as const satisfies readonly LibraryKind[]

export type MouldBody = z.infer<typeof mouldSchema>
export type BucketBody = z.infer<typeof bucketSchema>
export type BagBody = z.infer<typeof bagSchema>
export interface LibraryBodies { mould: MouldBody, bucket: BucketBody, bag: BagBody }

export interface LibraryItem<K extends LibraryKind = LibraryKind> { readonly id: string, readonly kind: K, readonly body: LibraryBodies[K], readonly revision: number, /** Casts made with it so far. */ readonly uses?: number }
