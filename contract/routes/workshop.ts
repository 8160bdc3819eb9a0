import { workshopChangeSchema } from '../account'
import { ARCHIVE_MEDIA, archiveQuerySchema } from '../archive'
import { clockChangeSchema } from '../clock'
import { importBegun, importJobSchema, importSchema } from '../import'
import { LIBRARY_KINDS } from '../library'
import type { RoomFacts } from '../limits'
import { shareFactsSchema } from '../share'
import type { SetAside } from '../versions'
import { z } from '../zod'
import { byId, clockFacts, done, type Table } from './route'

const setAside: z.ZodType<SetAside> = z.strictObject({
  what: z.enum([...LIBRARY_KINDS, 'plan', 'pour', 'view']),
  id: z.string(),
  name: z.string().optional(),
  why: z.enum(['newer', 'broken']),
})

const kept = z.strictObject({ bytes: z.number(), most: z.number() })
const room: z.ZodType<RoomFacts> = z.strictObject({ photos: kept, models: kept })

/** The workshop, and what goes in and out of it as a whole. */
export const WORKSHOP_ROUTES = {
  'PATCH workshop': {
    role: 'owner',
    about: 'Changes the workshop’s name or units.',
    body: workshopChangeSchema,
    answer: done,
  },
  'GET room': { role: 'viewer', about: 'How much of photos and models the workshop keeps, and may.', answer: room },
  'GET share': {
    role: 'viewer',
    about: 'How phones on the workshop’s network reach this server, if it is shared.',
    answer: z.strictObject({ share: shareFactsSchema.optional() }),
  },
  'POST clock': {
    role: 'member',
    about: 'Runs the demo’s clock faster, or jumps it ahead.',
    body: clockChangeSchema,
    answer: clockFacts,
  },
  'GET set-aside': {
    role: 'viewer',
    about: 'What this version cannot read: kept, and left out of its list.',
    answer: z.array(setAside),
  },
  'GET archive': { role: 'owner', about: 'The whole workshop as one file.', gives: ARCHIVE_MEDIA },
  'POST archive': {
    role: 'owner',
    about: 'Brings a whole workshop in. It is looked through whole before anything of it is written.',
    query: archiveQuerySchema,
    takes: ARCHIVE_MEDIA,
    answer: importBegun,
  },
  'POST import': {
    role: 'member',
    about: 'Brings rows of somebody’s own table in. They are looked through whole before any is written.',
    body: importSchema,
    answer: importBegun,
  },
  'GET imports': {
    role: 'member',
    about: 'What is being brought in from files, and what was lately.',
    answer: z.array(importJobSchema),
  },
  'POST imports/:id/end': {
    role: 'member',
    about: 'Gives one up; what is in by then stays until it is taken out. Its beginner’s and owners’ alone.',
    params: byId,
    answer: done,
  },
  'POST imports/:id/out': {
    role: 'member',
    about: 'Takes out what one brought, but for what was used or changed since. Its beginner’s and owners’ alone.',
    params: byId,
    answer: done,
  },
} as const satisfies Table
