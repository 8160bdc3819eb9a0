import { planSchema, savePlanSchema, type SavedPlan } from '../plan'
import { MOST_INT } from '../limits'
import { sendEventsSchema, startPourSchema } from '../pour'
import { z } from '../zod'
import {
  castRow,
  confirmedCauses,
  eventsAnswer,
  pace,
  pourAnswer,
  pourRow,
  takenAnswer,
} from './pour-answers'
import { byId, done, moment, type Table } from './route'

const savedPlan: z.ZodType<SavedPlan> = z.strictObject({
  id: z.uuid(),
  plan: planSchema,
  revision: z.int(),
  updatedAt: moment,
})
/** The year 2100, ms: no clock of a caster's is later. */
const LATEST = 4_102_444_800_000
const pdf = 'application/pdf'

/** Plans, what became of them at the bench, and the casts that came of it. */
export const POUR_ROUTES = {
  'GET plans': { role: 'viewer', about: 'All plans.', answer: z.array(savedPlan) },
  'PUT plans/:id': {
    role: 'member',
    about: 'Saves a plan; revision 0 makes a new one, any other must be the one it was read with.',
    params: byId,
    body: savePlanSchema,
    answer: savedPlan,
  },
  'DELETE plans/:id': { role: 'member', about: 'Puts a plan away.', params: byId, answer: done },
  'GET plans/:id/sheet': { role: 'viewer', about: 'A plan on paper.', params: byId, gives: pdf },
  'GET plans/:id/labels': {
    role: 'viewer',
    about: 'Labels for the bags of a plan that are filled at home.',
    params: byId,
    gives: pdf,
  },
  'GET pours': { role: 'viewer', about: 'The last five hundred pours.', answer: z.array(pourRow) },
  'POST pours': {
    role: 'member',
    about: 'Takes a plan to the bench: worked out here and frozen.',
    body: startPourSchema,
    answer: pourAnswer,
  },
  'GET pours/:id': { role: 'viewer', about: 'A pour with its entries.', params: byId, answer: pourAnswer },
  'GET pours/:id/events': {
    role: 'viewer',
    about: 'Entries of a pour after a number.',
    params: byId,
    query: z.object({ after: z.coerce.number<number>().int().min(0).max(MOST_INT).default(0) }),
    answer: eventsAnswer,
  },
  'POST pours/:id/events': {
    role: 'member',
    about: 'Takes entries of a device, each for itself; the same ones again are harmless.',
    params: byId,
    body: sendEventsSchema,
    answer: takenAnswer,
  },
  'GET pours/:id/labels': { role: 'viewer', about: 'Labels for the casts of a pour.', params: byId, gives: pdf },
  'GET casts': {
    role: 'viewer',
    about: 'Casts that are not finished, or were since.',
    query: z.object({ since: z.coerce.number<number>().min(0).max(LATEST).optional() }),
    answer: z.array(castRow),
  },
  'GET pace': { role: 'viewer', about: 'Your own pace, as your last pours here have it.', answer: pace },
  'GET causes': { role: 'viewer', about: 'Causes of defects that were confirmed here.', answer: confirmedCauses },
} as const satisfies Table
