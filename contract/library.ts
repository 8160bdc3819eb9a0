import { powderClassIdSchema } from './powder-class'
import { jobSchema, type JobBody } from './job'
import { orderSchema, type OrderBody } from './order'
import { pageSchema, type PageBody } from './page'
import { z } from './zod'
import { FORM_IDS, MOST_POINTS, type Likeness } from '~core/drawing/form-ids'
import { STORAGE } from '~core/gypsum/bag-age'
import { MOULD_MATERIALS, type MouldMaterial } from '~core/setting/body'
import type { Gauge } from '~core/mould/gauge/gauge'
import type { PhotoScale } from '~core/mould/photo/photo'
import type { Shape } from '~core/mould/gauge/shapes'
import type { Taught } from '~core/plan/types'
import { taughtSchema } from './taught'

const keys = <T extends string>(record: Readonly<Record<T, unknown>>) => Object.keys(record) as [T, ...T[]]
const name = z.string().trim().min(1, 'Give it a name.').max(80, 'Keep the name under 80 characters.')
const length = (max: number, what: string) =>
  z.number().positive(`${what} has to be more than zero.`).max(max, `${what} is out of reason here.`)

const metres = (what: string) => length(20, what)
const positive = z.number().positive('Every measure has to be more than zero.').max(1e4, 'That is out of reason here.')
const shapeSchema = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('box'),
    width: metres('The width'),
    length: metres('The length'),
    height: metres('The height'),
  }),
  z.object({ kind: z.literal('cylinder'), across: metres('The diameter'), height: metres('The height') }),
  z.object({
    kind: z.literal('cup'),
    bottom: z.number().min(0).max(20),
    top: metres('The top'),
    height: metres('The height'),
  }),
  z.object({
    kind: z.literal('tray'),
    bottomWidth: metres('The bottom'),
    bottomLength: metres('The bottom'),
    topWidth: metres('The top'),
    topLength: metres('The top'),
    height: metres('The height'),
  }),
  z.object({ kind: z.literal('cap'), rim: metres('The rim'), depth: metres('The depth') }),
  z.object({
    kind: z.literal('bowl'),
    width: metres('The width'),
    length: metres('The length'),
    depth: metres('The depth'),
  }),
  z.object({
    kind: z.literal('ellipsoid'),
    width: metres('The width'),
    length: metres('The length'),
    height: metres('The height'),
  }),
  z.object({
    kind: z.literal('outline'),
    points: z.array(z.object({ x: z.number().min(-20).max(20), y: z.number().min(-20).max(20) })).min(3).max(200),
    height: metres('The height'),
  }),
  z.object({
    kind: z.literal('turned'),
    points: z.array(z.object({ height: z.number().min(0).max(20), across: z.number().min(0).max(20) })).min(2).max(200),
  }),
]) satisfies z.ZodType<Shape>

const sides = z.object({ width: positive, length: positive })

/** One gauging as it was measured. Bounds keep out nonsense; whether it can be worked out is for the core to say. */
const gaugeSchema = z.discriminatedUnion('how', [
  z.object({ how: z.literal('water-weight'), mass: positive, temperature: z.number().min(0).max(60) }),
  z.object({ how: z.literal('water-jug'), reading: positive, step: positive }),
  z.object({ how: z.literal('water-part'), water: positive, share: z.number().min(0.02).max(1) }),
  z.object({ how: z.literal('gravel'), reading: positive, step: positive, grain: positive, gap: positive }),
  z.object({ how: z.literal('shapes'), stack: z.array(shapeSchema).min(1).max(20), error: z.number().min(0).max(0.1) }),
  z.object({
    how: z.literal('model-weight'),
    mass: positive,
    density: z.object({ low: positive, high: positive.max(2e4) }),
  }),
  z.object({
    how: z.literal('dam'),
    area: positive,
    sides: sides.optional(),
    printArea: z.number().min(0).max(1e3),
    printSides: sides.optional(),
    printDepth: z.number().min(0).max(2),
    cover: positive,
  }),
  z.object({
    how: z.literal('shell'),
    area: positive,
    sides: sides.optional(),
    relief: positive,
    thickness: positive,
    layers: z.int().min(1).max(50),
    radius: positive.optional(),
    rim: positive.optional(),
    body: z.discriminatedUnion('kind', [
      z.object({
        kind: z.literal('box'), width: positive, length: positive, height: positive, onTable: z.boolean().optional(),
      }),
      z.object({ kind: z.literal('cylinder'), across: positive, height: positive, onTable: z.boolean().optional() }),
      z.object({ kind: z.enum(['ball', 'dome']), across: positive }),
      z.object({ kind: z.literal('grown'), each: positive, taken: z.array(positive).min(1).max(50) }),
    ]).optional(),
  }),
  z.object({ how: z.literal('mesh'), volume: positive, trusted: z.boolean(), surface: positive.optional() }),
  z.object({ how: z.literal('pours'), volume: positive, casts: z.int().min(1).max(1e6) }),
  z.object({ how: z.literal('told'), volume: positive, percent: z.number().min(0.1).max(90) }),
]) satisfies z.ZodType<Gauge>

const pixel = z.object({ x: z.number().min(-1e5).max(1e5), y: z.number().min(-1e5).max(1e5) })
const photoScaleSchema = z.discriminatedUnion('how', [
  z.object({ how: z.literal('ruler'), ends: z.tuple([pixel, pixel]).readonly(), length: metres('The ruler') }),
  z.object({
    how: z.literal('rectangle'),
    corners: z.tuple([pixel, pixel, pixel, pixel]).readonly(),
    width: metres('The rectangle'),
    length: metres('The rectangle'),
  }),
]) satisfies z.ZodType<PhotoScale>

/** A print in the ground: where and when it was found, what may have made it, and what was measured in its photo. */
const impressionSchema = z.object({
  place: z.string().trim().max(200),
  on: z.iso.date('Say on which day, as year-month-day.'),
  believed: z.string().trim().max(200),
  /** Which way it pointed: a word or degrees. */
  faced: z.string().trim().max(60).optional(),
  photo: z.object({
    id: z.uuid(),
    scale: photoScaleSchema,
    camera: z.object({ distance: z.number().min(0).max(20), deeper: z.number().min(-2).max(2) }).optional(),
    marks: z.array(
      z.object({
        name: z.string().trim().min(1, 'Give each measure a name.').max(60),
        what: z.enum(['length', 'outline']),
        points: z.array(pixel).min(2).max(200).readonly(),
      }),
    ).max(40, 'Forty measures are enough.'),
  }).optional(),
})
export type Impression = z.infer<typeof impressionSchema>

const place = z.tuple([z.number().min(-200).max(200), z.number().min(-200).max(200)]).readonly()
const lines = (most: number) =>
  z.array(z.array(place).min(2).max(most).readonly()).max(60).readonly()
    .refine(all => all.reduce((n, l) => n + l.length, 0) <= most, 'This picture has too many points.')
/** How a mould's own piece looks, as its model or the outline in its photo shows it. */
const looksSchema = z.object({
  turned: z.boolean(),
  stands: z.boolean(),
  edge: lines(MOST_POINTS.edge).refine(all => all.length > 0, 'A picture has an edge.'),
  lines: lines(MOST_POINTS.lines),
  cut: z.array(place).min(3).max(MOST_POINTS.cut).readonly().optional(),
}) satisfies z.ZodType<Likeness>

const MOULD_KINDS = ['block', 'skin', 'parts', 'open', 'press', 'waste', 'impression', 'print'] as const

export const mouldSchema = z.object({
  name,
  kind: z.enum(MOULD_KINDS).optional(),
  material: z.enum(keys<MouldMaterial>(MOULD_MATERIALS)),
  /** What it is drawn as; by its mouth and what it holds where nobody chose. */
  form: z.enum(FORM_IDS).optional(),
  looks: looksSchema.optional(),
  volume: z.object({
    value: z.number().positive('A mould has to hold more than zero.').max(1, 'A mould holds at most 1 000 l here.'),
    low: z.number().positive(),
    high: z.number().positive().max(2),
  })
    .refine(v => v.low <= v.value && v.value <= v.high, 'The range of the volume must hold the volume itself.'),
  mouth: z.object({
    shape: z.enum(['round', 'rectangular']),
    width: length(5, 'The opening'),
    length: length(5, 'The opening'),
  }),
  wall: length(0.5, 'The wall'),
  section: length(1, 'The thickest part'),
  fragile: z.boolean(),
  note: z.string().max(2000).default(''),
  /** Inner face, m2, as its gauges tell it when a plan takes it; none where they do not. */
  face: positive.optional(),
  /** How it was gauged, as measured; the volume above is what they give together. */
  gauges: z.array(gaugeSchema).max(20, 'Twenty gauges are enough.').optional(),
  copies: z.int('Whole moulds only.').min(1, 'One mould at least.').max(1000).optional(),
  halves: z.int().min(1).max(20).optional(),
  straps: z.int().min(0).max(40).optional(),
  cradle: z.boolean().optional(),
  pourHole: length(1, 'The pour hole').optional(),
  /** Pours that it is expected to last, and what it cost, in the workshop's money. */
  life: z.int().min(1).max(100_000).optional(),
  cost: z.number().min(0, 'A cost is not negative.').max(1e6).optional(),
  impression: impressionSchema.optional(),
  wear: z.array(
    z.object({ on: z.iso.date(), note: z.string().trim().min(1, 'Say what you saw.').max(300), tear: z.boolean() }),
  ).max(200).optional(),
})

export const bucketSchema = z.object({
  name,
  vessel: z.object({ bottom: length(2, 'The bottom'), top: length(2, 'The top'), height: length(2, 'The height') }),
})

export const bagSchema = z.object({
  name, classId: powderClassIdSchema, uncertain: z.boolean(),
  /** Mass left, kg. */
  left: z.number().min(0, 'A bag cannot hold less than nothing.').max(5000).optional(),
  /** When that was so, milliseconds on the workshop's clock: what was poured since is taken off. */
  leftAt: z.number().min(0).max(4_102_444_800_000).optional(),
  price: z.number('A price is a number, such as 1.35.').min(0, 'A price is not negative.').max(1e5).optional(),
  opened: z.iso.date().optional(),
  /** How it is kept. */
  storage: z.enum(STORAGE).optional(),
  /** What is printed on it: water to powder by weight, and seconds after powder meets water. */
  printed: z.object({
    ratio: z.number().min(0.15, 'No pack says so little water.').max(2, 'No pack says so much water.').optional(),
    working: z.number().min(30).max(24 * 3600).optional(),
    sets: z.number().min(60).max(48 * 3600).optional(),
  }).optional(),
  /** Cup tests, the last fifty: when (ms), the temperature, when the gloss went (s), and what that taught. */
  cups: z.array(
    z.object({
      at: z.number().min(0).max(4_102_444_800_000),
      celsius: z.number().min(0).max(45),
      glossGone: z.number().min(30).max(6 * 3600),
      ...taughtSchema.shape,
    }),
  ).max(50).optional(),
  /** Spread tests, the last fifty: how wide a ring of mix ran, m, and how long after wetting, s. */
  spreads: z.array(
    z.object({
      at: z.number().min(0).max(4_102_444_800_000),
      celsius: z.number().min(0).max(45),
      ratio: z.number().min(0.1).max(2),
      diameter: z.number().min(0.03).max(0.5),
      after: z.number().min(30).max(1800).optional(),
    }),
  ).max(50).optional(),
  bulk: z.object({
    low: z.number().min(200, 'Powder is not that light.').max(2500),
    high: z.number().min(200).max(2500, 'Powder is not that heavy.'),
  }).refine(b => b.low < b.high, 'The range needs a lower and a higher end.').optional(),
  note: z.string().max(2000).default(''),
})

export const LIBRARY = {
  mould: mouldSchema, bucket: bucketSchema, bag: bagSchema, order: orderSchema, job: jobSchema, page: pageSchema,
} as const
export type LibraryKind = keyof typeof LIBRARY
export const LIBRARY_KINDS = ['mould', 'bucket', 'bag', 'order', 'job', 'page'] as const satisfies readonly LibraryKind[]

export type MouldBody = Omit<z.infer<typeof mouldSchema>, 'gauges'> & { gauges?: readonly Gauge[] }
export type BucketBody = z.infer<typeof bucketSchema>
export type BagBody = z.infer<typeof bagSchema>
export interface LibraryBodies {
  mould: MouldBody
  bucket: BucketBody
  bag: BagBody
  order: OrderBody
  job: JobBody
  page: PageBody
}

export interface LibraryItem<K extends LibraryKind = LibraryKind> {
  readonly id: string
  readonly kind: K
  readonly body: LibraryBodies[K]
  readonly revision: number
  /** The change of this browser that is laid over it; the server never says one. */
  readonly stamp?: string
  /** Of a mould: casts made with it so far, and what they took on the mean where nothing was left over. */
  readonly uses?: number
  readonly poured?: { readonly volume: number, readonly casts: number }
  /** Of a bag: what the marks of its batches told of its speed, the newest first. */
  readonly taught?: readonly Taught[]
  /** Of a bag: powder poured from it since what is left in it was said, kg, and by the last pour alone. */
  readonly used?: { readonly since: number, readonly last: number }
}

/** The mould library as a file: described in docs/formats.md. */
export const MOULD_FILE = 'nine-ripples moulds'
export const mouldFileSchema = z.object({
  format: z.literal(MOULD_FILE, 'This is not a file of moulds from Nine Ripples.'),
  version: z.literal(1, 'This file was written by a newer version; bring this one up to date first.'),
  moulds: z.array(mouldSchema, 'This file holds no list of moulds.').max(5000, 'A file holds up to 5 000 moulds.'),
})
