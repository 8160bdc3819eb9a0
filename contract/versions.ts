import type { FrozenRun } from '~core/plan/run'
import type { Plan } from '~core/plan/types'
import type { PowderClassId } from '~core/gypsum/powders'
import { EVENT_VERSION } from '~core/pour/events'
import { standingNow } from '~core/drying/places'
import type { MeasureId } from '~core/logbook/words'
import { CLASSES_OF_LAYERS_1 } from './classes-1'
import { LIBRARY, type LibraryBodies, type LibraryKind } from './library'
import { logbookQuerySchema, type LogbookQuery } from './logbook'
import { PLAN_SCHEMA_VERSION, planSchema } from './plan'
import { z } from './zod'

/**
 * Versions of what is stored. Whatever is read, from a row, a workshop file or a browser's store, goes through the
 * chain of its kind: each step takes a body of one version to the next, and what comes out is parsed. What cannot be
 * read is
 * told and set aside, never thrown: its list still opens.
 */

/** Why something stored cannot be read: written by a newer version than this one, or not what any version wrote. */
export type Unreadable = 'newer' | 'broken'
export type Upcast<T> = { readonly ok: true, readonly value: T } | { readonly ok: false, readonly why: Unreadable }

interface Chain<T> {
  /** The version that is written now. */
  readonly version: number
  /** From each older version to the next, by the older one. */
  readonly steps: Readonly<Record<number, (body: never) => unknown>>
  readonly schema: z.ZodType<T>
}

/**
 * Takes a stored body to the version of today.
 * @example upcast(PLANS, row.schema_version, row.body)
 */
export function upcast<T>({ version, steps, schema }: Chain<T>, from: number, body: unknown): Upcast<T> {
  if (!Number.isInteger(from) || from < 1) return { ok: false, why: 'broken' }
  if (from > version) return { ok: false, why: 'newer' }
  let now = body
  try {
    for (let v = from; v < version; v++) now = steps[v]!(now as never)
  }
  catch {
    return { ok: false, why: 'broken' }
  }
  const parsed = schema.safeParse(now)
  return parsed.success ? { ok: true, value: parsed.data } : { ok: false, why: 'broken' }
}

export const PLANS: Chain<Plan> = { version: PLAN_SCHEMA_VERSION, steps: {}, schema: planSchema }

/** Moulds, buckets, bags, orders, jobs and pages, each with a chain of its own. */
export const ITEMS: { readonly [K in LibraryKind]: Chain<LibraryBodies[K]> } = {
  mould: { version: 1, steps: {}, schema: LIBRARY.mould as unknown as z.ZodType<LibraryBodies['mould']> },
  bucket: { version: 1, steps: {}, schema: LIBRARY.bucket as unknown as z.ZodType<LibraryBodies['bucket']> },
  bag: { version: 1, steps: {}, schema: LIBRARY.bag as unknown as z.ZodType<LibraryBodies['bag']> },
  order: { version: 1, steps: {}, schema: LIBRARY.order as unknown as z.ZodType<LibraryBodies['order']> },
  job: { version: 1, steps: {}, schema: LIBRARY.job as unknown as z.ZodType<LibraryBodies['job']> },
  page: { version: 1, steps: {}, schema: LIBRARY.page as unknown as z.ZodType<LibraryBodies['page']> },
}

/**
 * A frozen run is what the model of its day worked out, and is never worked out again: only what every fold and screen
 * stands on is looked at. Runs say their version themselves.
 */
const runShape = z.looseObject({
  schema: z.literal(2),
  modelVersion: z.string(),
  powder: z.looseObject({ purity: z.number(), rate: z.number() }),
  plan: z.looseObject({ name: z.string(), school: z.string(), classId: z.string(), endUse: z.string() }),
  world: z.looseObject({ moulds: z.array(z.looseObject({ id: z.string(), name: z.string() })) }),
  ratio: z.looseObject({ value: z.number() }),
  batches: z.array(z.looseObject({ fills: z.array(z.looseObject({})), steps: z.looseObject({}) })).min(1),
  moments: z.record(z.string(), z.looseObject({})),
  drying: z.record(z.string(), z.looseObject({})),
}) as unknown as z.ZodType<FrozenRun>
/** Since version 2 a run keeps the facts of its class of powder. */
function withFacts(run: { readonly plan: { readonly classId: string } }): object {
  return { ...run, schema: 2, powder: CLASSES_OF_LAYERS_1[run.plan.classId] }
}
export const RUNS: Chain<FrozenRun> = { version: 2, steps: { 1: withFacts }, schema: runShape }

/** A run as it lies in its row or file. */
export function upcastRun(stored: unknown): Upcast<FrozenRun> {
  const schema = (stored as { readonly schema?: unknown } | null)?.schema
  return upcast(RUNS, typeof schema === 'number' ? schema : NaN, stored)
}

/**
 * The data of an entry, by kind; its version stands in its row. Since version 2 a step says from which step it was
 * told: of older ones that is not known, and they fold as they did. Version 3 has other places to dry in, outdoors;
 * version 4 the jug, version 5 eight more troubles, which no older entry names.
 */
const EVENT_STEPS: Readonly<Record<number, (kind: string, data: object) => object>> = {
  1: (_, data) => data,
  2: (kind, data) => kind === 'placed' ? standingNow(data as { readonly place: string }) : data,
  3: (_, data) => data,
  4: (_, data) => data,
}

/** What the check lists' measures were called when entries kept their names: as they stood then. */
const MEASURE_CALLED: Readonly<Record<string, MeasureId>> = {
  'Base': 'base',
  'Thinnest place': 'thinnest',
  'Plaster over the highest ground': 'over-ground',
  'Thickness at the rim': 'rim',
  'Thickness in the middle': 'middle',
  'Out of flat, at most': 'out-of-flat',
}

/** A measure by its id. What is an id already, or someone's own name, stays as it is. */
function measureNow(data: object): object {
  const { what } = data as { readonly what: string }
  return { ...data, what: MEASURE_CALLED[what] ?? what }
}

/** What an entry said, as this version understands it. */
export function upcastEvent(kind: string, version: number, data: object): Upcast<object> {
  if (version > EVENT_VERSION) return { ok: false, why: 'newer' }
  let now = data
  for (let v = version; v < EVENT_VERSION; v++) now = EVENT_STEPS[v]!(kind, now)
  return { ok: true, value: kind === 'measured' ? measureNow(now) : now }
}

/** What states were called when views kept their words. */
const STATUS_CALLED: Readonly<Record<string, string>> = { 'on the bench': 'bench', 'given up': 'abandoned' }
/** What the classes were called when views kept their names: as they stood then, whatever they are called now. */
const CLASS_CALLED: Readonly<Record<string, PowderClassId>> = {
  'Plaster of Paris': 'plaster-of-paris',
  'Casting plaster': 'casting-plaster',
  'Pottery plaster': 'pottery-plaster',
  'Gypsum cement': 'gypsum-cement',
  'High-strength gypsum cement': 'high-strength-gypsum-cement',
  'Dental plaster, Type 2': 'dental-type-2',
  'Dental stone, Type 3': 'dental-type-3',
  'Die stone, Type 4': 'dental-type-4',
  'Die stone, Type 5': 'dental-type-5',
  'Plaster and silica, 1 : 1': 'plaster-silica',
}

/** A fact that a view asks for, by ids. A view has no version of its own: what is an id already stays as it is. */
function factNow(fact: string): string {
  const [kind, ...rest] = fact.split(':'), value = rest.join(':')
  if (kind === 'status') return `status:${STATUS_CALLED[value] ?? value}`
  if (kind === 'powder') return `powder:${CLASS_CALLED[value] ?? value}`
  return fact
}

/** A saved view's question, as it may have been kept with the words of its day. */
export function upcastQuery(stored: unknown): Upcast<LogbookQuery> {
  const parsed = logbookQuerySchema.safeParse(stored)
  if (!parsed.success) return { ok: false, why: 'broken' }
  return { ok: true, value: { ...parsed.data, facts: parsed.data.facts.map(factNow) } }
}

/** Something stored that was set aside, as a list tells of it. */
export interface SetAside {
  readonly what: 'plan' | LibraryKind | 'pour' | 'view'
  readonly id: string
  /** Its name, where that much could be read. */
  readonly name?: string
  readonly why: Unreadable
}
