import {
  ownerSchema,
  personChangeSchema,
  personSchema,
  ROLES,
  signInSchema,
  unitsSchema,
  workshopChangeSchema,
  type PersonFacts,
  type SessionFacts,
} from '../account'
import { ARCHIVE_MEDIA } from '../archive'
import { clockChangeSchema } from '../clock'
import { importSchema, type Imported } from '../import'
import { LIBRARY_KINDS } from '../library'
import type { SetAside } from '../versions'
import { z } from '../zod'
import { byId, clockFacts, done, type Table } from './route'

const personFacts: z.ZodType<PersonFacts> = z.strictObject({
  id: z.uuid(),
  name: z.string(),
  email: z.string(),
  role: z.enum(ROLES),
})
const sessionFacts: z.ZodType<SessionFacts> = z.strictObject({
  person: personFacts.optional(),
  workshop: z.strictObject({ id: z.uuid(), name: z.string(), units: unitsSchema }).optional(),
  clock: clockFacts,
  demo: z.boolean(),
  needsOwner: z.boolean(),
})
const setAside: z.ZodType<SetAside> = z.strictObject({
  what: z.enum([...LIBRARY_KINDS, 'plan', 'pour', 'view']),
  id: z.string(),
  name: z.string().optional(),
  why: z.enum(['newer', 'broken']),
})
const imported: z.ZodType<Imported> = z.strictObject({ rows: z.int() })

/** Who is here, whose workshop it is, and what goes in and out of it as a whole. */
export const WORKSHOP_ROUTES = {
  'GET session': { role: 'anyone', about: 'Who is signed in, in which workshop, and what time it is there.', answer: sessionFacts },
  'POST session': { role: 'anyone', about: 'Signs in.', body: signInSchema, answer: done },
  'DELETE session': { role: 'anyone', about: 'Signs out.', answer: done },
  'POST owner': {
    role: 'anyone',
    about: 'Makes the first workshop and its owner; once there is one, this door is shut.',
    body: ownerSchema,
    answer: done,
  },
  'POST demo-entrance': { role: 'anyone', about: 'Enters the demo, where this is one.', answer: done },
  'GET people': { role: 'viewer', about: 'The people of the workshop.', answer: z.array(personFacts) },
  'POST people': { role: 'owner', about: 'Adds somebody.', body: personSchema, answer: personFacts },
  'PATCH people/:id': {
    role: 'owner',
    about: 'Changes somebody’s role or password, or takes them out.',
    params: byId,
    body: personChangeSchema,
    answer: done,
  },
  'PATCH workshop': {
    role: 'owner',
    about: 'Changes the workshop’s name or units.',
    body: workshopChangeSchema,
    answer: done,
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
