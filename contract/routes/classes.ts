import { unitsSchema } from '../account'
import {
  addSeatsSchema, changeClassSchema, doingSchema, joinSchema, kitsSchema, leadSchema, openClassSchema, resultSchema,
  taskSchema, type ClassAnswer, type ClassRow, type ResultFacts, type SeatAnswer, type SeatFacts,
} from '../classroom'
import { sendEventsSchema } from '../pour'
import { RUNS } from '../versions'
import { z } from '../zod'
import { takenAnswer } from './pour-answers'
import { byId, clockFacts, done, moment, type Table } from './route'

/** Classes: what a teacher leads, and what a seat in one may see and tell. */

const row = {
  id: z.uuid(), name: z.string(), openedAt: moment, endsAt: moment, over: z.boolean(), seats: z.int(),
}
const classRow: z.ZodType<ClassRow> = z.strictObject(row)
const result = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('scenario'), id: z.string(), verdict: z.enum(['good', 'second', 'waste']), named: z.array(z.string()),
    minutes: z.number(),
  }),
  z.strictObject({ kind: z.literal('lesson'), id: z.string(), right: z.int(), of: z.int() }),
  z.strictObject({ kind: z.literal('page'), name: z.string(), right: z.int(), of: z.int() }),
  z.strictObject({ kind: z.literal('test'), right: z.int(), of: z.int() }),
])
const seatFacts = z.strictObject({
  id: z.uuid(), number: z.int(), name: z.string(), phone: z.boolean(), heardAt: moment.optional(),
  doing: doingSchema.strict().optional(),
  results: z.array(z.union(result.options.map(o => o.extend({ task: z.int() })))),
  kit: z.strictObject({
    pour: z.uuid(), colour: z.string(), begun: z.boolean(), stage: z.string().optional(),
    casts: z.array(z.strictObject({ id: z.string(), label: z.string(), verdict: z.string().optional() })),
  }).optional(),
}) as unknown as z.ZodType<SeatFacts>
const classAnswer = z.strictObject({
  ...row, teacher: z.string(), leads: z.boolean(), code: z.string().optional(), shut: z.boolean(), paused: z.boolean(),
  kept: z.boolean(), task: taskSchema, tasks: z.int(), all: z.array(seatFacts), now: moment,
  kit: z.strictObject({ plan: z.uuid(), run: RUNS.schema, powder: z.number(), led: z.int() }).optional(),
}) as unknown as z.ZodType<ClassAnswer>
const seatAnswer = z.strictObject({
  seat: z.strictObject({ id: z.uuid(), number: z.int(), name: z.string() }),
  class: z.strictObject({
    name: z.string(), endsAt: moment, over: z.boolean(), paused: z.boolean(), task: taskSchema, tasks: z.int(),
  }),
  units: unitsSchema, clock: clockFacts,
  kit: z.strictObject({
    pour: z.uuid(), colour: z.string(), run: RUNS.schema, begun: z.boolean(), seq: z.int(),
    events: z.array(z.looseObject({ id: z.uuid(), kind: z.string() })),
  }).optional(),
}) as unknown as z.ZodType<SeatAnswer>
const made = z.strictObject({ id: z.uuid() })
const pdf = 'application/pdf', stream = 'text/event-stream'

export const CLASS_ROUTES = {
  'GET classes': { role: 'member', about: 'Classes, the latest first.', answer: z.array(classRow) },
  'POST classes': { role: 'member', about: 'Opens a class; whoever does is its teacher.', body: openClassSchema, answer: made },
  'GET classes/:id': { role: 'member', about: 'A class with its seats.', params: byId, answer: classAnswer },
  'PATCH classes/:id': {
    role: 'member', about: 'Gives it a task, holds practice, shuts its door, ends it.', params: byId, body: changeClassSchema,
    answer: done,
  },
  'DELETE classes/:id': {
    role: 'member', about: 'Deletes it with its seats and their names; what was poured stays.', params: byId, answer: done,
  },
  'POST classes/:id/seats': { role: 'member', about: 'Seats without a phone.', params: byId, body: addSeatsSchema, answer: done },
  'DELETE classes/:id/seats/:seat': {
    role: 'member', about: 'Sends a seat out.', params: byId.extend({ seat: z.uuid() }), answer: done,
  },
  'POST classes/:id/kits': {
    role: 'member', about: 'A kit for each seat, from one plan.', params: byId, body: kitsSchema, answer: done,
  },
  'POST classes/:id/lead': {
    role: 'member', about: 'The same step for every kit without a phone.', params: byId, body: leadSchema, answer: done,
  },
  'GET classes/:id/labels': { role: 'member', about: 'A label for each kit.', params: byId, gives: pdf },
  'GET classes/:id/results': { role: 'member', about: 'Results as a table.', params: byId, gives: 'text/csv' },
  'POST seat': { role: 'anyone', about: 'Takes a seat with a code and a first name.', body: joinSchema, answer: seatAnswer },
  'GET seat': { role: 'anyone', about: 'One’s seat: the task, and one’s own kit.', answer: seatAnswer },
  'DELETE seat': { role: 'anyone', about: 'Leaves the seat, here in this browser.', answer: done },
  'GET seat/live': { role: 'anyone', about: 'That the class was given something else.', gives: stream },
  'PUT seat/doing': { role: 'anyone', about: 'Where one is, for the teacher’s screen.', body: doingSchema, answer: done },
  'POST seat/results': {
    role: 'anyone', about: 'What came of a task; a test is marked here.', body: resultSchema,
    answer: result as unknown as z.ZodType<ResultFacts>,
  },
  'POST seat/kit': { role: 'anyone', about: 'Begins one’s own kit.', answer: seatAnswer },
  'POST seat/events': {
    role: 'anyone', about: 'Entries of one’s own kit, each for itself.', body: sendEventsSchema, answer: takenAnswer,
  },
} as const satisfies Table
