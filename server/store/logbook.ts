import { sql, type SelectQueryBuilder } from 'kysely'
import { defectWords } from '~core/pour/defects'
import { BEGINNING, beginning, wordsOf, type Counts, type Series } from '~core/logbook/tallies'
import { trialOf, type Trial } from '~core/logbook/trial'
import { USUAL_LIFE } from '~core/mould/readiness'
import type { LibraryBodies } from '~contract/library'
import {
  COUNTED_UP_TO,
  MOST_VIEWS,
  type KeyTally,
  type LogbookPage,
  type LogbookQuery,
  type LogbookTallies,
  type LogbookView,
  type SetTime,
} from '~contract/logbook'
import type { Database } from './schema'
import type { Scope } from './scope'
import { upcastQuery } from '~contract/versions'

const started = sql<number>`coalesce(started_at, 0)`
const PAGE = 50

/** Words that begin like this one. Few letters are a beginning of their own; more begin few words. */
const MOST_ENDINGS = 50
async function endingsOf(scope: Scope, begin: string): Promise<string[]> {
  if ([...begin].length <= BEGINNING) return [beginning(begin)]
  const rows = await scope.select('logbook_word').select('word').where('word', '>=', begin).where(
    'word',
    '<',
    `${begin}\u{10FFFF}`,
  ).orderBy('word').limit(MOST_ENDINGS).execute()
  return rows.map(r => r.word)
}

/**
 * The condition on a pour, as far as words go: each that was typed is the beginning of one it has. Whole words let the
 * database know how common they are.
 */
async function wordsSought(scope: Scope, find: string): Promise<readonly (readonly string[])[]> {
  return Promise.all(wordsOf(find).map(w => endingsOf(scope, w)))
}

type Sought = Omit<LogbookQuery, 'find'> & { readonly words: readonly (readonly string[])[] }

function matching(
  scope: Scope,
  { words, facts, from, to }: Sought,
): SelectQueryBuilder<Database, 'pour_projection', unknown> {
  let query = scope.select('pour_projection')
  const all = [...words.filter(any => any.length === 1).flat(), ...facts]
  if (all.length > 0) query = query.where(sql<boolean>`found_by @> ${all}::text[]`)
  for (const any of words.filter(any => any.length !== 1)) query = query.where(sql<boolean>`found_by && ${any}::text[]`)
  if (from) query = query.where(sql<boolean>`coalesce(started_at, 0) >= ${Date.parse(`${from}-01`)}`)
  if (to) query = query.where(sql<boolean>`coalesce(started_at, 0) < ${monthAfter(to)}`)
  return query
}

function monthAfter(month: string): number {
  const [year, number] = month.split('-').map(Number)
  return Date.UTC(year!, number!, 1)
}

/** Pours that match, the newest first, a page at a time. @param after where the last page ended */
export async function findPours(scope: Scope, query: LogbookQuery, after?: string): Promise<LogbookPage> {
  const matches = matching(scope, { ...query, words: await wordsSought(scope, query.find) })
  let page = matches.select(['pour_id', started.as('started')])
  if (after) {
    const [at, id] = after.split('.')
    page = page.where(sql<boolean>`(coalesce(started_at, 0), pour_id) < (${Number(at)}, ${id}::uuid)`)
  }
  // The narrow columns are found first: what is passed over is never unpacked.
  const found = await page.orderBy(started, 'desc').orderBy('pour_id', 'desc').limit(PAGE + 1).execute()
  const shown = found.slice(0, PAGE), last = shown.at(-1)
  const [bodies, count] = await Promise.all([
    shown.length === 0
      ? []
      : scope.select('pour_projection').select(['pour_id', 'seq', 'body'])
          .where('pour_id', 'in', shown.map(r => r.pour_id))
          .execute(),
    // All of them are on a page that is not full; and a list is counted once.
    after
      ? undefined
      : found.length <= PAGE
        ? found.length
        : scope.countUpTo(matches.select('pour_id'), COUNTED_UP_TO + 1),
  ])
  const byId = new Map(bodies.map(b => [b.pour_id, { id: b.pour_id, seq: b.seq, summary: b.body }]))
  return {
    rows: shown.map(r => byId.get(r.pour_id)!),
    count,
    next: found.length > PAGE ? `${last!.started}.${last!.pour_id}` : undefined,
  }
}

const sum = (column: string) => sql<number>`sum(${sql.ref(column)})::float8`
const SUMS = [
  sum('pours').as('pours'),
  sum('casts').as('casts'),
  sum('judged').as('judged'),
  sum('good').as('good'),
  sum('second').as('second'),
  sum('waste').as('waste'),
  sum('powder_grams').as('powderGrams'),
  sum('cost_hundredths').as('costHundredths'),
  sum('pieces').as('pieces'),
  sum('took_casts').as('tookCasts'),
  sum('took_mm3').as('tookCubicMillimetres'),
] as const

type TallyQuery<O> = SelectQueryBuilder<Database, 'tally', O>
interface Months { readonly from?: string, readonly to?: string }
function within<O>(query: TallyQuery<O>, { from, to }: Months): TallyQuery<O> {
  const begun = from ? query.where('month', '>=', from) : query
  return to ? begun.where('month', '<=', to) : begun
}

type Sum = { readonly key: string, readonly counts: Counts }
/** Counts of a series by its keys, those with the most pours first. */
async function sumsOf(scope: Scope, series: Series, months: Months): Promise<readonly Sum[]> {
  const rows = await within(scope.select('tally').where('series', '=', series), months).select('key').select(SUMS)
    .groupBy('key').having(sql<boolean>`sum(pours) > 0`).execute()
  return rows.map(({ key, ...counts }) => ({ key, counts }))
    .sort((a, b) => b.counts.pours - a.counts.pours || (a.key < b.key ? -1 : 1))
}
async function monthsOf(scope: Scope, months: Months): Promise<LogbookTallies['months']> {
  const rows = await within(scope.select('tally').selectAll().where('series', '=', 'all'), months).where('pours', '>', 0)
    .orderBy('month').execute()
  return rows.map(({ month, powder_grams, cost_hundredths, took_casts, took_mm3, ...r }) => ({
    month,
    counts: {
      pours: r.pours,
      casts: r.casts,
      judged: r.judged,
      good: r.good,
      second: r.second,
      waste: r.waste,
      pieces: r.pieces,
      powderGrams: powder_grams,
      costHundredths: cost_hundredths,
      tookCasts: took_casts,
      tookCubicMillimetres: took_mm3,
    },
  }))
}
/** What the library has of these now. */
async function itemsOf(scope: Scope, ids: readonly string[]): Promise<ReadonlyMap<string, LibraryBodies['mould']>> {
  if (ids.length === 0) return new Map()
  const rows = await scope.select('library_item').select(['id', 'body']).where('id', 'in', [...ids]).execute()
  return new Map(rows.map(i => [i.id, i.body as LibraryBodies['mould']]))
}

/** The workshop's counts from their months. Names are as the library has them now. */
export async function talliesOfWorkshop(scope: Scope, from?: string, to?: string): Promise<LogbookTallies> {
  const span = { from, to }
  const [months, moulds, bags, defects, ever] = await Promise.all([
    monthsOf(scope, span),
    sumsOf(scope, 'mould', span),
    sumsOf(scope, 'bag', span),
    sumsOf(scope, 'defect', span),
    scope.select('tally').where('series', '=', 'mould').select('key').select(sum('casts').as('casts')).groupBy('key')
      .execute(),
  ])
  const items = await itemsOf(scope, [...moulds, ...bags].map(k => k.key))
  const named = (s: Sum): KeyTally => ({ ...s, name: items.get(s.key)?.name ?? 'no longer in the library' })
  return {
    months,
    moulds: moulds.map((m) => {
      const mould = items.get(m.key), lifeCasts = mould && (mould.life ?? USUAL_LIFE[mould.material])
      return { ...named(m), ever: ever.find(e => e.key === m.key)?.casts, lifeCasts }
    }),
    bags: bags.map(named),
    defects: defects.map(d => ({ ...d, name: defectWords(d.key) })),
  }
}

const MOST_SET_TIMES = 60

/** When the last batches from a bag, or all of them, lost their gloss; the oldest first. */
export async function setTimes(scope: Scope, bag?: string): Promise<SetTime[]> {
  const rows = await scope.select('pour_projection').select([
    'pour_id',
    'started_at',
    sql<string>`body->>'name'`.as('name'),
    sql<
      { value: number, low: number, high: number, actual: number }
    >`jsonb_path_query_first(body, '$.glyph[*] ? (@.id == "set")')`.as('set'),
  ])
    .where(sql<boolean>`found_by @> ${['marked:set', ...bag ? [`bag:${bag}`] : []]}::text[]`).where(
      'status',
      '<>',
      'abandoned',
    ).orderBy(started, 'desc').orderBy('pour_id', 'desc').limit(MOST_SET_TIMES).execute()
  return rows.map(({ pour_id, name, started_at, set }) => ({
    pour: pour_id,
    name,
    at: started_at!,
    expected: set.value,
    low: set.low,
    high: set.high,
    actual: set.actual,
  })).reverse()
}

const MOST_TRIALS = 2000

/** The last pours that something came of, as values among others. @param facts what they all have in common */
export async function trials(scope: Scope, facts: readonly string[]): Promise<Trial[]> {
  const rows = await matching(scope, { words: [], facts: [...facts] }).select('body').where('status', '<>', 'abandoned')
    .orderBy(started, 'desc').orderBy('pour_id', 'desc').limit(MOST_TRIALS).execute()
  return rows.flatMap(r => trialOf(r.body) ?? [])
}

export async function logbookViews(scope: Scope): Promise<LogbookView[]> {
  const rows = await scope.select('logbook_view').select(['id', 'name', 'query']).orderBy('name').orderBy('id')
    .execute()
  return rows.flatMap(({ id, name, query }) => {
    const read = upcastQuery(query)
    return read.ok ? [{ id, name, query: read.value }] : []
  })
}

/** Saves a view, or saves it anew. @returns false when there are too many. */
export async function saveView(scope: Scope, { id, name, query }: LogbookView): Promise<boolean> {
  const changed = await scope.update('logbook_view').set({ name, query: JSON.stringify(query) }).where('id', '=', id)
    .returning('id').execute()
  if (changed.length > 0) return true
  const { n } = await scope.select('logbook_view').select(sql<number>`count(*)::int`.as('n')).executeTakeFirstOrThrow()
  if (n >= MOST_VIEWS) return false
  return (await scope.insert('logbook_view', [{ id, name, query: JSON.stringify(query) }]).onConflict(c =>
    c.columns(['workshop_id', 'id']).doNothing(),
  ).returning('id').execute()).length > 0
}

export async function dropView(scope: Scope, id: string): Promise<boolean> {
  return (await scope.remove('logbook_view').where('id', '=', id).returning('id').execute()).length > 0
}
