import { z } from './zod'
import { LIBRARY_KINDS } from './library'
import { MOST_INT } from './limits'
import { photoSubjectSchema } from './photo'
import { sentEventSchema, startPourSchema } from './pour'

/**
 * What a browser still holds for an address at which the workshop was open before, as the page of that address hands
 * it to the page of the new one (public/left-behind.js, app/pages/hand-over.vue). It comes from outside: each record is
 * looked at before it waits among those that were written here.
 */

/** Whose it is: a person in a workshop. */
const key = z.string().regex(/^[0-9a-f-]{36}@[0-9a-f-]{36}$/)
const id = z.uuid()
const reading = z.strictObject({ page: z.string().max(64), wall: z.number(), mono: z.number() })
const held = { key, refused: z.string().max(2000).optional() }

export const leftWaitingSchema = z.strictObject({
  ...held, id, pour: id, order: z.int().min(0).max(MOST_INT), event: sentEventSchema, told: reading.optional(),
}).refine(w => w.id === w.event.id)

export const leftBegunSchema = z.strictObject({
  ...held, id, start: startPourSchema, run: z.looseObject({ schema: z.int() }), told: reading.optional(),
}).refine(b => b.id === b.start.id)

const target = z.discriminatedUnion('what', [
  z.strictObject({ what: z.literal('item'), kind: z.enum(LIBRARY_KINDS), id }),
  z.strictObject({ what: z.enum(['plan', 'view']), id }),
  z.strictObject({ what: z.literal('photo'), id, of: photoSubjectSchema }),
  z.strictObject({ what: z.literal('workshop') }),
])

const picture = z.strictObject({
  blob: z.instanceof(Blob), width: z.int().positive(), height: z.int().positive(), caption: z.string().max(200),
})

export const leftChangeSchema = z.looseObject({
  ...held, name: z.string().max(120), target, order: z.number(), base: z.int().min(0).max(MOST_INT),
  isNew: z.boolean(), body: z.unknown(), picture: picture.optional(), stamp: z.string().max(64),
  sent: z.array(z.unknown()).max(100),
})

/** All of one browser's, unread: what cannot be read stays where it is. */
export const leftBehindSchema = z.strictObject({
  ripples: z.literal('left'), waiting: z.array(z.unknown()), begun: z.array(z.unknown()), changes: z.array(z.unknown()),
})
