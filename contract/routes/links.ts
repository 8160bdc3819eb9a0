import { SIGN_IDS } from '~core/job/types'
import type { PourEvent } from '~core/pour/events'
import { unitsSchema } from '../account'
import { jobStepSchema } from '../job'
import {
  LINK_KINDS, newLinkSchema, tokenSchema, type LinkFacts, type NewLink, type WallAnswer, type WallJob,
} from '../link'
import { sentEventSchema } from '../pour'
import { RUNS } from '../versions'
import { z } from '../zod'
import { byId, clockFacts, done, moment, type Table } from './route'

const facts = { id: z.uuid(), kind: z.enum(LINK_KINDS), name: z.string(), madeAt: moment }
const linkFacts: z.ZodType<LinkFacts> = z.strictObject(facts)
const newLink: z.ZodType<NewLink> = z.strictObject({ ...facts, token: tokenSchema })
/** An entry as the room may see it: without who did it and on which device, and no notes. */
const seenFromTheRoom = z.union(
  sentEventSchema.options.filter(o => o.shape.kind.value !== 'note').map(o =>
    o.extend({ pour: z.uuid(), actor: z.literal(''), device: z.literal('') }).strict(),
  ),
) as unknown as z.ZodType<PourEvent>
const expected = z.strictObject({
  low: z.number(), value: z.number(), high: z.number(), actual: z.number().optional(),
})
const wallJob: z.ZodType<WallJob> = z.strictObject({
  id: z.uuid(),
  name: z.string(),
  steps: z.array(jobStepSchema),
  pours: z.array(z.strictObject({
    step: z.string(), wetAt: moment.optional(), filled: expected, signs: z.partialRecord(z.enum(SIGN_IDS), expected),
  })),
})
const wallAnswer: z.ZodType<WallAnswer> = z.strictObject({
  workshop: z.string(),
  units: unitsSchema,
  clock: clockFacts,
  pours: z.array(z.strictObject({ id: z.uuid(), run: RUNS.schema, events: z.array(seenFromTheRoom) })),
  jobs: z.array(wallJob),
})
const byToken = z.object({ token: tokenSchema })
const file = z.string().transform(name => name.replace(/\.ics$/, '')).pipe(tokenSchema)
const calendar = 'text/calendar', stream = 'text/event-stream'

/** Links that open one thing to whoever has them, and what tells that something changed. */
export const LINK_ROUTES = {
  'GET links': { role: 'member', about: 'Links that are out.', answer: z.array(linkFacts) },
  'POST links': { role: 'owner', about: 'Makes a link; its secret is told once.', body: newLinkSchema, answer: newLink },
  'DELETE links/:id': { role: 'owner', about: 'Takes a link back.', params: byId, answer: done },
  'GET wall/:token': { role: 'anyone', about: 'What a wall display shows.', params: byToken, answer: wallAnswer },
  'GET wall/:token/live': { role: 'anyone', about: 'That something changed, never what.', params: byToken, gives: stream },
  'GET calendar/:file': {
    role: 'anyone',
    about: 'Moments to come, to whoever has the link.',
    params: z.object({ file }),
    gives: calendar,
  },
  'GET calendar': { role: 'viewer', about: 'Moments to come as a file, once.', gives: calendar },
  'GET live': { role: 'viewer', about: 'What changed, by ids.', gives: stream },
} as const satisfies Table
