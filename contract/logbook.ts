import type { Counts, Series } from '~core/logbook/tallies'
import { z } from './zod'
import type { PourRow } from './pour'

const facts = z.array(z.string().regex(/^[a-z]+:.{1,80}$/)).max(12)
/** Facts as an address gives them: none, one or several. */
export const factListSchema = z.union([z.string(), z.array(z.string())]).transform(v => Array.isArray(v) ? v : [v])
  .pipe(facts).default([])

/** What is looked for in the logbook: words that must all be found, facts that must all hold, and a time. */
export const logbookQuerySchema = z.object({
  find: z.string().max(200, 'Look for fewer words.').default(''),
  facts: facts.default([]),
  /** Months, `2026-11`, both within. */
  from: z.string().regex(/^\d{4}-(0[1-9]|1[0-2])$/, 'A month is a year and a number, like 2026-11.').optional(),
  to: z.string().regex(/^\d{4}-(0[1-9]|1[0-2])$/, 'A month is a year and a number, like 2026-11.').optional(),
})
export type LogbookQuery = z.infer<typeof logbookQuerySchema>

/** Where a list goes on: after this pour. */
export const afterSchema = z.string().regex(/^\d{1,15}\.[0-9a-f-]{36}$/)

export interface LogbookPage {
  readonly rows: readonly PourRow[]
  /** Of the first page: how many there are, up to one more than COUNTED_UP_TO. */
  readonly count?: number
  readonly next?: string
}
export const COUNTED_UP_TO = 300

export interface MonthTally {
  readonly month: string
  readonly counts: Counts
}
export interface KeyTally {
  readonly key: string
  readonly name: string
  readonly counts: Counts /** Of a mould: casts in all time, and how many it is expected to last. */
  readonly ever?: number
  readonly lifeCasts?: number
}
export interface LogbookTallies {
  readonly months: readonly MonthTally[]
  readonly moulds: readonly KeyTally[]
  readonly bags: readonly KeyTally[]
  readonly defects: readonly KeyTally[]
}
export type { Series }

/** When a batch lost its gloss, against what was forecast for it; seconds after powder met water. */
export interface SetTime {
  readonly pour: string
  readonly name: string
  readonly at: number
  readonly expected: number
  readonly low: number
  readonly high: number
  readonly actual: number
}

export const viewSchema = z.object({
  name: z.string().trim().min(1, 'Give the view a name.').max(60, 'Keep the name under 60 characters.'),
  query: logbookQuerySchema,
})
export interface LogbookView extends z.infer<typeof viewSchema> {
  readonly id: string
}
export const MOST_VIEWS = 40
