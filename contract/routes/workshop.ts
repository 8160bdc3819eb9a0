import { workshopChangeSchema } from '../account'
import { ARCHIVE_MEDIA } from '../archive'
import { clockChangeSchema } from '../clock'
import { importSchema, type Imported } from '../import'
import { LIBRARY_KINDS } from '../library'
import type { RoomFacts } from '../limits'
import { shareFactsSchema } from '../share'
import type { SetAside } from '../versions'
import { z } from '../zod'
import { clockFacts, done, type Table } from './route'

const setAside: z.ZodType<SetAside> = z.strictObject({
  what: z.enum([...LIBRARY_KINDS, 'plan', 'pour', 'view']),
  id: z.string(),
  name: z.string().optional(),
  why: z.enum(['newer', 'broken']),
})
const imported: z.ZodType<Imported> = z.strictObject({ rows: z.int() })

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
    about: 'Takes a whole workshop in, all or nothing; tells of its progress line by line.',
    takes: ARCHIVE_MEDIA,
    gives: 'application/x-ndjson',
  },
  'POST import': {
    role: 'member',
    about: 'Takes rows of somebody’s own table in, all or none.',
    body: importSchema,
    answer: imported,
  },
} as const satisfies Table
