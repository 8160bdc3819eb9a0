import { z } from './zod'
import type { FrozenRun } from '~core/plan/run'
import { unitsSchema } from './account'
import { LIBRARY_KINDS } from './library'
import { MOST_INT } from './limits'
import { logbookQuerySchema } from './logbook'
import { FILE_UNITS, type FileUnit } from '~core/mould/mesh/mesh'
import { MOST_PARTS, PART_BYTES } from './mesh'
import { photoSubjectSchema } from './photo'
import { planSchema } from './plan'

/** A whole workshop as one file: docs/formats.md says what is in it. */
export const ARCHIVE_FORMAT = 'nine-ripples workshop'
export const ARCHIVE_VERSION = 1
export const ARCHIVE_MEDIA = 'application/zip'
/** A file of more than this is not taken in through the browser. */
export const ARCHIVE_BYTES = 2_000_000_000
/** Its name, as whoever sends it knows it. */
export const archiveQuerySchema = z.object({ file: z.string().max(200).default('') })

const sha256 = z.string().regex(/^[0-9a-f]{64}$/)
const moment = z.iso.datetime()
const finite = z.number()
const range = z.looseObject({ low: finite, value: finite, high: finite })
const id = z.uuid()

export const archiveManifestSchema = z.object({
  format: z.literal(ARCHIVE_FORMAT),
  version: z.int().min(1),
  made: moment,
  /** SHA-256 of every file but this one, and of their list. */ files: z.record(z.string().max(120), sha256),
  hash: sha256,
})
export type ArchiveManifest = z.infer<typeof archiveManifestSchema>

/**
 * What a fold and every screen need of a frozen run. The rest of it is kept as it is: it was worked out by the model of
 * its day, and is worked out by none again.
 */
const runSchema = z.looseObject({
  schema: z.union([z.literal(1), z.literal(2)]),
  modelVersion: z.string().max(60),
  plan: planSchema,
  world: z.looseObject({
    moulds: z.array(z.looseObject({ id, name: z.string().max(200), material: z.string().max(40), volume: range })).max(
      400,
    ),
    bag: z.looseObject({ id, name: z.string().max(200) }).optional(),
    bucket: z.looseObject({ id }).optional(),
  }),
  ratio: range,
  batches: z.array(z.looseObject({
    fills: z.array(
      z.looseObject({
        mould: z.looseObject({ id }),
        copies: z.int().min(0).max(1000),
        first: z.int().min(0).max(100_000),
      }),
    ).max(400),
    mix: z.looseObject({ water: finite, powder: finite }),
    steps: z.looseObject({ sifted: range, soaked: range, stirred: range, poured: range, pouring: finite }),
  })).min(1).max(400),
  moments: z.record(
    z.string(),
    z.looseObject({ glossGone: range, warmest: range, open: z.looseObject({ from: finite, to: finite }) }),
  ),
  drying: z.record(z.string(), range),
}) as unknown as z.ZodType<FrozenRun>

export const archiveLines = {
  'people.jsonl': z.strictObject({ id, name: z.string().trim().min(1).max(80) }),
  'library.jsonl': z.strictObject({
    id,
    kind: z.enum(LIBRARY_KINDS),
    body: z.unknown(),
    revision: z.int().min(1).max(MOST_INT),
    archived: moment.optional(),
  }),
  'plans.jsonl': z.strictObject({
    id,
    plan: planSchema,
    revision: z.int().min(1).max(MOST_INT),
    updatedAt: moment,
    archived: moment.optional(),
  }),
  'pours.jsonl': z.strictObject({
    id,
    planId: id.optional(),
    startedBy: z.string().max(64),
    createdAt: moment,
    run: runSchema,
    events: z.array(
      z.looseObject({ actor: z.string().max(64), skewMs: z.number().min(-1e13).max(1e13), receivedAt: moment }),
    ).max(100_000),
  }),
  'views.jsonl': z.strictObject({ id, name: z.string().trim().min(1).max(60), query: logbookQuerySchema }),
  'photos.jsonl': z.strictObject({ id, of: photoSubjectSchema, caption: z.string().max(200), createdAt: moment }),
  'meshes.jsonl': z.strictObject({
    id,
    mould: id,
    name: z.string().min(1).max(200),
    unit: z.enum(Object.keys(FILE_UNITS) as [FileUnit, ...FileUnit[]]),
    triangles: z.int().min(1).max(MOST_INT),
    parts: z.array(z.int().min(1).max(PART_BYTES)).min(1).max(MOST_PARTS),
    createdAt: moment,
  }),
} as const
export type ArchiveList = keyof typeof archiveLines
export type ArchiveLine<L extends ArchiveList> = z.infer<typeof archiveLines[L]>
export const archiveWorkshopSchema = z.strictObject({ name: z.string().trim().min(1).max(80), units: unitsSchema })
