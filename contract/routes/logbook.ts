import type { Counts } from '~core/logbook/tallies'
import { CHOICE_FACTORS, NUMBER_FACTORS, OUTCOMES, type Trial } from '~core/logbook/trial'
import {
  afterSchema,
  factListSchema,
  logbookQuerySchema,
  viewSchema,
  type KeyTally,
  type LogbookPage,
  type LogbookTallies,
  type LogbookView,
  type SetTime,
} from '../logbook'
import { z } from '../zod'
import { pourRow } from './pour-answers'
import { byId, done, idsOf, moment, type Table } from './route'

const counts: z.ZodType<Counts> = z.strictObject({
  pours: z.int(),
  casts: z.int(),
  judged: z.int(),
  good: z.int(),
  second: z.int(),
  waste: z.int(),
  powderGrams: z.number(),
  costHundredths: z.number(),
  pieces: z.int(),
  tookCasts: z.int(),
  tookCubicMillimetres: z.number(),
})
const tally: z.ZodType<KeyTally> = z.strictObject({
  key: z.string(),
  name: z.string(),
  counts,
  ever: z.int().optional(),
  lifeCasts: z.int().optional(),
})
const tallies: z.ZodType<LogbookTallies> = z.strictObject({
  months: z.array(z.strictObject({ month: z.string(), counts })),
  moulds: z.array(tally),
  bags: z.array(tally),
  defects: z.array(tally),
})
const page: z.ZodType<LogbookPage> = z.strictObject({
  rows: z.array(pourRow),
  count: z.int().optional(),
  next: z.string().optional(),
})
const setTime: z.ZodType<SetTime> = z.strictObject({
  pour: z.uuid(),
  name: z.string(),
  at: moment,
  expected: z.number(),
  low: z.number(),
  high: z.number(),
  actual: z.number(),
})
const trial: z.ZodType<Trial> = z.strictObject({
  at: moment,
  did: z.partialRecord(z.enum(idsOf(NUMBER_FACTORS)), z.number()),
  was: z.partialRecord(z.enum(idsOf(CHOICE_FACTORS)), z.string()),
  came: z.partialRecord(z.enum(idsOf(OUTCOMES)), z.number()),
})
const view: z.ZodType<LogbookView> = viewSchema.extend({ id: z.uuid() }).strict()

/** What was made, looked for and counted. */
export const LOGBOOK_ROUTES = {
  'GET logbook': { role: 'viewer', about: 'The whole logbook as a table.', gives: 'text/csv', ofCopy: true },
  'GET logbook/pours': {
    role: 'viewer',
    ofCopy: true,
    about: 'Pours that fit what is looked for, a page at a time.',
    query: logbookQuerySchema.extend({ facts: factListSchema, after: afterSchema.optional() }),
    answer: page,
  },
  'GET logbook/tallies': {
    role: 'viewer',
    ofCopy: true,
    about: 'Counts by month, mould, bag and defect.',
    query: logbookQuerySchema.pick({ from: true, to: true }),
    answer: tallies,
  },
  'GET logbook/set-times': {
    role: 'viewer',
    ofCopy: true,
    about: 'When mixes lost their gloss, against what was forecast.',
    query: z.object({ bag: z.uuid().optional() }),
    answer: z.array(setTime),
  },
  'GET logbook/trials': {
    role: 'viewer',
    ofCopy: true,
    about: 'What was done and what came of it, pour by pour.',
    query: z.object({ facts: factListSchema }),
    answer: z.array(trial),
  },
  'GET logbook/views': { role: 'viewer', about: 'Views that were kept.', answer: z.array(view) },
  'PUT logbook/views/:id': { role: 'member', about: 'Keeps a view.', params: byId, body: viewSchema, answer: done },
  'DELETE logbook/views/:id': { role: 'member', about: 'Takes a view away.', params: byId, answer: done },
} as const satisfies Table
