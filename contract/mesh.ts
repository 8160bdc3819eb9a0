import { z } from './zod'
import { FILE_UNITS, type FileUnit } from '~core/mould/mesh/mesh'
import { MOST_TRIANGLES } from '~core/mould/mesh/stl'

/**
 * A model kept with its mould: gzipped binary STL in parts. The server stores bytes and counts them; it never opens
 * them.
 */
export const PART_BYTES = 900_000
export const MOST_PARTS = 300

export const meshSchema = z.object({
  mould: z.uuid(),
  name: z.string().trim().min(1, 'The model needs a name.').max(200),
  unit: z.enum(Object.keys(FILE_UNITS) as [FileUnit, ...FileUnit[]]),
  triangles: z.int().min(1, 'A model has triangles.').max(
    MOST_TRIANGLES,
    'A model has at most five million triangles.',
  ),
  parts: z.int().min(1).max(
    MOST_PARTS,
    'This model is too large to keep: at most 270 MB packed. Reduce it and try again.',
  ),
})
export type MeshFacts = z.infer<typeof meshSchema>

/** SHA-256 of all parts one after the other, as hexadecimal; the browser may be unable to make one. */
export const meshDoneSchema = z.object({
  sha256: z.string().regex(/^[0-9a-f]{64}$/, 'A checksum has 64 digits.').optional(),
})

export interface KeptMesh extends MeshFacts { readonly id: string, readonly sha256: string, readonly bytes: number }
