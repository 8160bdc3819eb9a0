import type { CodeAnswer } from '../label'
import { LIBRARY, LIBRARY_KINDS, type LibraryItem } from '../library'
import { MOST_INT } from '../limits'
import { MOST_PARTS, meshDoneSchema, meshSchema, type KeptMesh } from '../mesh'
import { photoQuerySchema, photoSubjectSchema, type KeptPhoto } from '../photo'
import { z } from '../zod'
import { byId, done, type Table } from './route'
import { taught } from './pour-answers'

const kind = z.enum(LIBRARY_KINDS)
const item = z.strictObject({
  id: z.uuid(),
  kind,
  body: z.union(Object.values(LIBRARY)),
  revision: z.int(),
  uses: z.int().optional(),
  poured: z.strictObject({ volume: z.number(), casts: z.number() }).optional(),
  taught: z.array(taught).optional(),
  used: z.strictObject({ since: z.number(), last: z.number() }).optional(),
}) as unknown as z.ZodType<LibraryItem>
const keptMesh: z.ZodType<KeptMesh> = meshSchema.extend({ id: z.uuid(), sha256: z.string(), bytes: z.int() }).strict()
const keptPhoto: z.ZodType<KeptPhoto> = z.strictObject({
  id: z.uuid(),
  mould: z.uuid().optional(),
  pour: z.uuid().optional(),
  cast: z.string().optional(),
  caption: z.string(),
  width: z.int(),
  height: z.int(),
  bytes: z.int(),
  sha256: z.string(),
})
const named = { id: z.uuid(), name: z.string() }
const codeAnswer: z.ZodType<CodeAnswer> = z.strictObject({
  things: z.array(z.union([
    z.strictObject({ what: z.enum(['bag', 'plan']), ...named }),
    z.strictObject({ what: z.literal('cast'), cast: z.string(), ...named }),
  ])),
})
const byPart = byId.extend({ part: z.coerce.number<number>().int().min(0).max(MOST_PARTS - 1) })

/** Moulds, buckets and bags, and what is kept with them. */
export const LIBRARY_ROUTES = {
  'GET library/:kind': { role: 'viewer', about: 'All of one kind.', params: z.object({ kind }), answer: z.array(item) },
  'PUT library/:kind/:id': {
    role: 'member',
    about: 'Saves one; revision 0 makes a new one, any other must be the one it was read with.',
    params: byId.extend({ kind }),
    body: z.object({ body: z.unknown().describe('As its kind is answered'), revision: z.int().min(0).max(MOST_INT) }),
    answer: item,
  },
  'DELETE library/:kind/:id': {
    role: 'member',
    about: 'Puts one away; old pours keep what they froze of it.',
    params: byId.extend({ kind }),
    answer: done,
  },
  'GET meshes': {
    role: 'viewer',
    about: 'The model that a mould has.',
    query: z.object({ mould: z.uuid() }),
    answer: keptMesh,
  },
  'PUT meshes/:id': {
    role: 'member',
    about: 'Begins to receive a model for a mould.',
    params: byId,
    body: meshSchema,
    answer: done,
  },
  'GET meshes/:id/parts/:part': {
    role: 'viewer',
    about: 'One part of a model.',
    params: byPart,
    gives: 'application/octet-stream',
  },
  'PUT meshes/:id/parts/:part': {
    role: 'member',
    about: 'Takes one part of a model.',
    params: byPart,
    takes: 'application/octet-stream',
    answer: done,
  },
  'POST meshes/:id/done': {
    role: 'member',
    about: 'All parts were sent: the model becomes its mould’s.',
    params: byId,
    body: meshDoneSchema,
    answer: keptMesh,
  },
  'GET photos': {
    role: 'viewer',
    about: 'The photos of a mould or a cast, without their pictures.',
    query: photoSubjectSchema,
    answer: z.array(keptPhoto),
  },
  'GET photos/:id': { role: 'viewer', about: 'One photo; it never changes.', params: byId, gives: 'image/jpeg' },
  'PUT photos/:id': {
    role: 'member',
    about: 'Takes a photo of a mould or a cast; only the picture is kept.',
    params: byId,
    query: photoQuerySchema,
    takes: 'image/jpeg',
    answer: z.strictObject({ id: z.uuid(), width: z.int(), height: z.int() }),
  },
  'DELETE photos/:id': { role: 'member', about: 'Takes a photo away.', params: byId, answer: done },
  'GET labels/bags': { role: 'viewer', about: 'Labels for the bags, to print.', gives: 'application/pdf' },
  'GET labels/:code': {
    role: 'viewer',
    about: 'What a label’s code opens, in this workshop.',
    params: z.object({ code: z.string().max(40) }),
    answer: codeAnswer,
  },
} as const satisfies Table
