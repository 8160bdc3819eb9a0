/** What is brought in from files, and how far it is: what screens need of it, without the schemas. */

/** What can be brought in from a file. */
export const IMPORT_KINDS = ['archive', 'moulds', 'bags', 'pours'] as const
export type ImportKind = typeof IMPORT_KINDS[number]

/**
 * How far it is: `checking` writes nothing, `taking` writes lots. Of what ended, `given-up` and `broken` may have left
 * some of it in; what was `refused` left nothing. `half-out` was given up or broke off while it was taken out.
 */
export const IMPORT_STATES = [
  'waiting', 'checking', 'taking', 'done', 'given-up', 'refused', 'broken', 'taking-out', 'taken-out', 'half-out',
] as const
export type ImportState = typeof IMPORT_STATES[number]
/** Somebody works at it. */
export const isUnderWay = (state: ImportState): boolean =>
  state === 'waiting' || state === 'checking' || state === 'taking' || state === 'taking-out'

/** What was brought, or is in; `stayed` counts what could not be taken out because it was used since. */
export const IMPORT_COUNTS = ['pours', 'entries', 'moulds', 'bags', 'plans', 'photos', 'models', 'stayed'] as const
export type ImportCounts = Readonly<Record<typeof IMPORT_COUNTS[number], number>>
export const NO_IMPORT_COUNTS = Object.fromEntries(IMPORT_COUNTS.map(k => [k, 0])) as ImportCounts

export const THING_KINDS = ['person', 'item', 'plan', 'pour', 'view', 'photo', 'mesh'] as const
export type ThingKind = typeof THING_KINDS[number]
/** For so long it can be taken out again, days. */
export const IMPORT_DAYS = 30
