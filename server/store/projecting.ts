import { sql } from 'kysely'
import { changeOf, factsOf, searchWords, talliesOf, withBeginnings, type Tally } from '~core/logbook/tallies'
import { foldPour } from '~core/pour/fold'
import { summariseCasts, summarisePour } from '~core/pour/projection'
import type { Db } from './open'
import { lastOf, upToNow, type Known } from './pours-in-hand'
import { within, type Scope } from './scope'

/** Raised whenever what is projected changes: projections of older rules are made anew at the next start. */
export const RULES = 7

/** A pour folded, with what lists read of it. @throws TypeError and such, of what no version wrote */
export function foldedFor([id, now]: readonly [string, Known]) {
  const state = foldPour(now.run, now.events)
  const casts = summariseCasts(now.run, state), summary = summarisePour(now.run, state)
  const rows = casts.map(c => ({
    cast_id: c.id,
    status: state.status === 'abandoned' ? 'abandoned' : c.status,
    finished_at: c.finishedAt ?? null,
    body: JSON.stringify(c),
  }))
  return {
    id,
    now,
    summary,
    casts,
    rows,
    words: searchWords(summary, casts),
    tallies: talliesOf(summary, casts),
    changed: rows.filter((c) => {
      const before = now.casts?.get(c.cast_id)
      return before?.body !== c.body || before.status !== c.status
    }),
  }
}
/** What lists of moulds and bags tell of a pour: powder used, what it taught of its bag, casts filled in a mould. */
function toldOfThings({ summary, tallies }: Pick<Folded, 'summary' | 'tallies'>): string {
  const { bagId, powderUsed, taught, status } = summary
  const casts = tallies.filter(t => t.series === 'mould').map(t => [t.key, t.counts.casts, t.counts.tookCasts])
  return JSON.stringify([bagId, powderUsed ?? 0, taught ?? [], status === 'abandoned', casts])
}
export type Folded = ReturnType<typeof foldedFor>

/** What was counted of pours of which it is not known here. */
async function countedBefore(scope: Scope, folded: readonly Folded[]): Promise<ReadonlyMap<string, readonly Tally[]>> {
  const unknown = folded.filter(f => !f.now.tallies).map(f => f.id)
  if (unknown.length === 0) return new Map()
  const rows = await scope.select('pour_projection').select(['pour_id', 'tallies']).where('pour_id', 'in', unknown)
    .execute()
  return new Map(rows.map(r => [r.pour_id, r.tallies]))
}

async function writePours(scope: Scope, folded: readonly Folded[]): Promise<void> {
  await scope.insert(
    'pour_projection',
    folded.map(({ id, now, summary, casts, words, tallies }) => ({
      pour_id: id,
      seq: lastOf(now),
      status: summary.status,
      started_at: summary.startedAt ?? null,
      body: JSON.stringify(summary),
      found_by: sql`${[...withBeginnings(words), ...factsOf(summary, casts)]}::text[]` as never,
      tallies: JSON.stringify(tallies),
      rules: RULES,
    })),
  ).onConflict(c =>
    c.columns(['workshop_id', 'pour_id']).doUpdateSet(eb => ({
      status: eb.ref('excluded.status'),
      started_at: eb.ref('excluded.started_at'),
      body: eb.ref('excluded.body'),
      found_by: eb.ref('excluded.found_by'),
      tallies: eb.ref('excluded.tallies'),
      rules: eb.ref('excluded.rules'),
      seq: eb.ref('excluded.seq'),
    })),
  ).execute()
}

async function writeCasts(scope: Scope, folded: readonly Folded[]): Promise<void> {
  const rows = folded.flatMap(({ id, changed }) => changed.map(c => ({ pour_id: id, ...c })))
  if (rows.length === 0) return
  await scope.insert('cast_projection', rows).onConflict(c =>
    c.columns(['workshop_id', 'pour_id', 'cast_id']).doUpdateSet(eb => ({
      status: eb.ref('excluded.status'),
      finished_at: eb.ref('excluded.finished_at'),
      body: eb.ref('excluded.body'),
    })),
  ).execute()
}

async function writeWords(scope: Scope, folded: readonly Folded[]): Promise<void> {
  const words = [...new Set(folded.flatMap(f => f.words.filter(w => !f.now.words?.includes(w))))].sort()
  if (words.length > 0)
    await scope.insert('logbook_word', words.map(word => ({ word }))).onConflict(c => c.doNothing()).execute()
}

/**
 * Writes what lists read of these pours: always the fold of all their events. Most entries change no cast and no count,
 * and what is known to stand there already is not written again. Call with the workshop's counter taken.
 * @returns the pours with their casts and counts as they stand now: to be kept once the transaction is through.
 */
export async function project(scope: Scope, pours: ReadonlyMap<string, Known>): Promise<Map<string, Known>> {
  return writeFolded(scope, [...pours].map(foldedFor))
}

/** As `project`, of what is folded already: nobody waits for the counter meanwhile. */
export async function writeFolded(scope: Scope, folded: readonly Folded[]): Promise<Map<string, Known>> {
  const before = await countedBefore(scope, folded)
  await writePours(scope, folded)
  await writeCasts(scope, folded)
  await writeWords(scope, folded)
  const counted = folded.flatMap(f => f.now.tallies ?? before.get(f.id) ?? [])
  await count(scope, changeOf(counted, folded.flatMap(f => f.tallies)))
  return new Map(folded.map(({ id, now, rows, words, tallies, summary }) => [id, {
    ...now, casts: new Map(rows.map(c => [c.cast_id, c])), words, tallies, library: toldOfThings({ summary, tallies }),
  }]))
}

/** Adds to the workshop's counts, or takes off. */
export async function count(scope: Scope, changes: readonly Tally[]): Promise<void> {
  if (changes.length === 0) return
  const rows = changes.map(({ series, key, month, counts: c }) => ({
    series,
    key,
    month,
    pours: c.pours,
    casts: c.casts,
    judged: c.judged,
    good: c.good,
    second: c.second,
    waste: c.waste,
    powder_grams: c.powderGrams,
    cost_hundredths: c.costHundredths,
    pieces: c.pieces,
    took_casts: c.tookCasts,
    took_mm3: c.tookCubicMillimetres,
  }))
  await scope.insert('tally', rows).onConflict(c =>
    c.columns(['workshop_id', 'series', 'key', 'month']).doUpdateSet(eb =>
      Object.fromEntries(
        ([
          'pours',
          'casts',
          'judged',
          'good',
          'second',
          'waste',
          'powder_grams',
          'cost_hundredths',
          'pieces',
          'took_casts',
          'took_mm3',
        ] as const).map(k => [k, eb(`tally.${k}`, '+', eb.ref(`excluded.${k}`))]),
      ),
    ),
  ).execute()
}

/** Makes projections of older rules anew, some at a time. @param told after each lot, how many are left */
export async function bringUpToDate(db: Db, told: (left: number) => void = () => {}): Promise<void> {
  for (;;) {
    const old = await db.selectFrom('pour_projection').select(['pour_id', 'workshop_id']).where('rules', '<', RULES)
      .orderBy('workshop_id').limit(100).execute()
    if (old.length === 0) return
    const workshop = old[0]!.workshop_id, own = old.filter(o => o.workshop_id === workshop).map(o => o.pour_id)
    await within(db, workshop).transaction(async (inner) => {
      await inner.bumpEvents(0)
      const found = await upToNow(inner, -1, own), unread = own.filter(id => !found.has(id))
      if (found.size > 0) await project(inner, found)
      // What cannot be read keeps its place in the lists as it was last projected.
      if (unread.length > 0)
        await inner.update('pour_projection').set({ rules: RULES }).where('pour_id', 'in', unread).execute()
    })
    const { left } = await db.selectFrom('pour_projection').select(sql<number>`count(*)::int`.as('left')).where(
      'rules',
      '<',
      RULES,
    ).executeTakeFirstOrThrow()
    told(left)
  }
}
