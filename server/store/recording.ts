import { EVENT_VERSION, type PourEvent } from '~core/pour/events'
import { sql } from 'kysely'
import { castsOf, type FrozenRun } from '~core/plan/run'
import { summariseCasts, summarisePour } from '~core/pour/projection'
import { changeOf, factsOf, searchWords, talliesOf, withBeginnings, type Tally } from '~core/logbook/tallies'
import { foldPour } from '~core/pour/fold'
import { MOST_ENTRIES } from '~contract/limits'
import type { Fate, SentEvent, TakenAnswer } from '~contract/pour'
import { LastUsed } from '../last-used'
import { announceAll } from './announce'
import { EVENT_COLUMNS, eventOf } from './pours'
import type { Db } from './open'
import { within, type Scope } from './scope'
import { Refused } from '../refused'
import { notTakenWords, type NotTaken } from '../words'
import { readable } from './set-aside'
import { upcastEvent, upcastRun } from '~contract/versions'

/** A pour as this process knows it. */
interface Known {
  readonly run: FrozenRun
  readonly events: readonly PourEvent[]
  readonly ids: ReadonlySet<string>
  /** The number of each event, rising. */
  readonly seqs: readonly number[]
  /**
   * The casts as they stand in the projection and what it adds to the counts, if it was this process that wrote them.
   */
  readonly casts?: ReadonlyMap<string, Standing>
  readonly tallies?: readonly Tally[]
  readonly words?: readonly string[]
}
/** How far a cast is, and all that lists read of it. */
interface Standing { readonly status: string, readonly body: string }
const lastOf = (known: Known) => known.seqs.at(-1) ?? 0

function grown(known: Known, events: readonly PourEvent[], seqs: readonly number[]): Known {
  return {
    ...known,
    events: [...known.events, ...events],
    ids: new Set([...known.ids, ...events.map(e => e.id)]),
    seqs: [...known.seqs, ...seqs],
  }
}

/**
 * What was written to lately is kept, so that an entry does not read its pour again. It holds as long as nobody else
 * writes: every writer takes numbers from the
 * workshop's counter, so a counter that stands where this process left it says that nobody did; else all of the
 * workshop's is read anew.
 */
interface InHand { counter: number, pours: LastUsed<Known> }
const POURS_IN_HAND = 300
const inHand = new LastUsed<InHand>(100)

function keep(workshop: string, before: number, counter: number, pours: ReadonlyMap<string, Known>): void {
  let own = inHand.get(workshop)
  if (own?.counter !== before) inHand.set(workshop, own = { counter, pours: new LastUsed(POURS_IN_HAND) })
  own.counter = counter
  for (const [id, known] of pours) own.pours.set(id, known)
}

/**
 * These pours up to this moment; those that are not the workshop's are left out. Call with the workshop's counter
 * taken. @param before where it stood.
 */
async function upToNow(scope: Scope, before: number, pours: readonly string[]): Promise<Map<string, Known>> {
  const own = inHand.get(scope.workshopId), found = new Map<string, Known>(), missing: string[] = []
  for (const id of pours) {
    const known = own?.counter === before ? own.pours.get(id) : undefined
    if (known) found.set(id, known)
    else missing.push(id)
  }
  if (missing.length === 0) return found
  const runs = await scope.select('pour').select(['id', 'run']).where('id', 'in', missing).execute()
  const rows = await scope.select('pour_event').select([...EVENT_COLUMNS, 'seq']).where('pour_id', 'in', missing)
    .orderBy('seq').execute()
  for (const { id, run: stored } of runs) {
    const read = upcastRun(stored), own = rows.filter(r => r.pour_id === id)
    // Set aside: nothing is added to what cannot be read.
    if (!read.ok || own.some(r => r.version > EVENT_VERSION)) continue
    const run = read.value
    found.set(id, grown({ run, events: [], ids: new Set(), seqs: [] }, own.map(eventOf), own.map(r => r.seq)))
  }
  return found
}

/** Finds what could never belong to this run, so that a fault in one device cannot pollute the record. */
function faultFinder(run: FrozenRun): (e: SentEvent) => NotTaken | undefined {
  const casts = new Set(castsOf(run).map(c => c.id)), batches = run.batches.length
  return (e) => {
    if (e.batch !== undefined && e.batch >= batches) return { code: 'batch', batches, named: e.batch }
    if ('cast' in e.data && !casts.has(e.data.cast)) return { code: 'cast', named: e.data.cast }
    return undefined
  }
}

/** For a whole that is taken as it is or not at all. @throws Refused */
function checkAgainst(run: FrozenRun, events: readonly SentEvent[]): void {
  const faultOf = faultFinder(run)
  for (const e of events) {
    const fault = faultOf(e)
    if (fault) throw new Refused('entries', undefined, notTakenWords(fault))
  }
}

/** Raised whenever what is projected changes: projections of older rules are made anew at the next start. */
export const RULES = 3

/** A pour folded, with what lists read of it. */
function foldedFor([id, now]: readonly [string, Known]) {
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
type Folded = ReturnType<typeof foldedFor>

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
async function project(scope: Scope, pours: ReadonlyMap<string, Known>): Promise<Map<string, Known>> {
  const folded = [...pours].map(foldedFor), before = await countedBefore(scope, folded)
  await writePours(scope, folded)
  await writeCasts(scope, folded)
  await writeWords(scope, folded)
  const counted = folded.flatMap(f => f.now.tallies ?? before.get(f.id) ?? [])
  await count(scope, changeOf(counted, folded.flatMap(f => f.tallies)))
  return new Map(folded.map(({ id, now, rows, words, tallies }) =>
    [id, { ...now, casts: new Map(rows.map(c => [c.cast_id, c])), words, tallies }],
  ))
}

/** Adds to the workshop's counts. */
async function count(scope: Scope, changes: readonly Tally[]): Promise<void> {
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

/**
 * Appends events that the pours do not have yet. @param first the number of the first. @returns the ids that were
 * written: all but those that are another pour's already.
 */
async function append(scope: Scope, first: number, fresh: readonly Fresh[]): Promise<ReadonlySet<string>> {
  if (fresh.length === 0) return new Set()
  const written = await scope.insert(
    'pour_event',
    fresh.map(({ pour, event: e, actor, skewMs, receivedAt }, i) => ({
      id: e.id,
      pour_id: pour,
      seq: first + i,
      batch: e.batch ?? null,
      kind: e.kind,
      version: e.version,
      data: JSON.stringify(e.data),
      happened_at: Math.round(e.happenedAt),
      recorded_at: Math.round(e.recordedAt),
      skew_ms: Math.round(skewMs),
      device: e.device,
      device_seq: e.deviceSeq,
      actor,
      mends: e.mends ?? null,
      doubt_ms: e.doubt ?? null,
      ...receivedAt && { received_at: receivedAt },
    })),
  ).onConflict(c => c.doNothing()).returning('id').execute()
  return new Set(written.map(r => r.id))
}
/** As `append`, for a whole that is taken as it is or not at all. @throws Refused */
async function appendAll(scope: Scope, first: number, fresh: readonly Fresh[]): Promise<void> {
  if ((await append(scope, first, fresh)).size < fresh.length)
    throw new Refused('entries', undefined, notTakenWords({ code: 'elsewhere' }))
}
interface Fresh {
  readonly pour: string
  readonly event: SentEvent
  readonly actor: string
  readonly skewMs: number
  readonly receivedAt?: Date
}

/** An event as it will be read back from its row. */
function asRead({ pour, event: e, actor }: Fresh): PourEvent {
  return {
    ...e,
    pour,
    batch: e.batch,
    version: EVENT_VERSION,
    data: readable(upcastEvent(e.kind, e.version, JSON.parse(JSON.stringify(e.data)) as object)),
    happenedAt: Math.round(e.happenedAt),
    recordedAt: Math.round(e.recordedAt),
    actor,
  } as PourEvent
}

/** Which of these plans the workshop has. */
async function plansHere(inner: Scope, ids: readonly (string | undefined)[]): Promise<ReadonlySet<string>> {
  const named = ids.filter(id => id !== undefined)
  const rows = named.length > 0 ? await inner.select('plan').select('id').where('id', 'in', named).execute() : []
  return new Set(rows.map(r => r.id))
}
const planHere = (here: ReadonlySet<string>, id: string | undefined) => id !== undefined && here.has(id) ? id : null

/** Starts a pour with its first event; a plan that is not here is forgotten. Repeating the same start is harmless. */
export async function startPour(
  scope: Scope,
  start: {
    readonly id: string
    readonly planId?: string
    readonly run: FrozenRun
    readonly first: readonly SentEvent[]
    readonly actor: string
    readonly skewMs?: number
  },
): Promise<void> {
  const begun = await scope.transaction(async (inner, trx) => {
    const made = await inner.insert('pour', [{
      id: start.id,
      plan_id: planHere(await plansHere(inner, [start.planId]), start.planId),
      run: JSON.stringify(start.run),
      started_by: start.actor,
    }]).onConflict(c => c.columns(['workshop_id', 'id']).doNothing()).returning(['id', 'run']).execute()
    if (made.length === 0) return
    checkAgainst(start.run, start.first)
    const last = await inner.bumpEvents(start.first.length), first = last - start.first.length + 1
    const fresh = start.first.map(event => ({ pour: start.id, event, actor: start.actor, skewMs: start.skewMs ?? 0 }))
    await appendAll(inner, first, fresh)
    const known = await project(
      inner,
      new Map([[
        start.id,
        grown(
          { run: made[0]!.run, events: [], ids: new Set(), seqs: [] },
          fresh.map(asRead),
          fresh.map((_, i) => first + i),
        ),
      ]]),
    )
    await announceAll(trx, scope.workshopId, [{ what: 'pour', pour: start.id, after: 0, seq: last }])
    return { before: first - 1, last, known }
  })
  if (begun) keep(scope.workshopId, begun.before, begun.last, begun.known)
}

/** What one device sent for one pour, waiting to be written. */
interface Sent {
  readonly scope: Scope
  readonly pour: string
  readonly events: readonly SentEvent[]
  readonly actor: string
  readonly skewMs: number
  readonly after: number
  readonly resolve: (answer: TakenAnswer | undefined) => void
  readonly reject: (error: unknown) => void
}

/** Written together at most. */
const MOST_TOGETHER = 64
const waiting = new Map<string, Sent[]>()

/**
 * Takes what a device sends: new ids are appended, known ones acknowledged, projections refolded, all in one
 * transaction.
 * A workshop's counter row lets one transaction write at a time; what arrives while one is under way goes together into
 * the next, so that a class of
 * devices waits for one commit and not for each other's.
 * @param after the number up to which the device has the pour already.
 * @returns the pour's events after that and what became of each that was sent; undefined when there is no such pour.
 */
export function recordEvents(
  scope: Scope,
  pour: string,
  events: readonly SentEvent[],
  actor: string,
  skewMs = 0,
  after = 0,
): Promise<TakenAnswer | undefined> {
  return new Promise((resolve, reject) => {
    const sent: Sent = { scope, pour, events, actor, skewMs, after, resolve, reject }
    const line = waiting.get(scope.workshopId)
    if (line) {
      line.push(sent)
      return
    }
    waiting.set(scope.workshopId, [sent])
    void writeInTurn(scope.workshopId)
  })
}

async function writeInTurn(workshop: string): Promise<void> {
  const line = waiting.get(workshop)!
  while (line.length > 0) {
    const together = line.splice(0, MOST_TOGETHER)
    await writeTogether(together).catch(async (error) => {
      // One that cannot be taken must not take the others with it.
      for (const one of together)
        await (together.length > 1 ? writeTogether([one]) : Promise.reject(error)).catch(one.reject)
    })
  }
  waiting.delete(workshop)
}

/** What goes into one transaction: entries to be written, and what became of the others. */
interface Sorted { readonly fresh: readonly Fresh[], readonly fates: ReadonlyMap<Sent, ReadonlyMap<string, Fate>> }

/** Refuses, knows or takes each entry for itself. */
function sortEntries(together: readonly Sent[], found: ReadonlyMap<string, Known>): Sorted {
  const fresh: Fresh[] = [], here = new Set<string>(), fates = new Map<Sent, Map<string, Fate>>()
  const more = new Map<string, number>()
  for (const sent of together) {
    const known = found.get(sent.pour), own = new Map<string, Fate>()
    if (!known) continue
    fates.set(sent, own)
    const faultOf = faultFinder(known.run)
    for (const event of sent.events) {
      const { id } = event, fault = faultOf(event)
      if (fault) own.set(id, { id, fate: 'refused', code: fault.code, sentence: notTakenWords(fault) })
      // The same entry twice, in one request or in two that came together, is one entry.
      else if (known.ids.has(id) || here.has(`${sent.pour} ${id}`)) own.set(id, own.get(id) ?? { id, fate: 'known' })
      else if (known.ids.size + (more.get(sent.pour) ?? 0) >= MOST_ENTRIES)
        own.set(id, { id, fate: 'refused', code: 'full', sentence: notTakenWords({ code: 'full' }) })
      else {
        here.add(`${sent.pour} ${id}`)
        more.set(sent.pour, (more.get(sent.pour) ?? 0) + 1)
        fresh.push({ pour: sent.pour, event, actor: sent.actor, skewMs: sent.skewMs })
        own.set(id, { id, fate: 'stored' })
      }
    }
  }
  return { fresh, fates }
}

/** The pours with what was written added to them. @param first the number of the first that was to be written */
function grownBy(
  found: ReadonlyMap<string, Known>,
  fresh: readonly Fresh[],
  first: number,
  written: ReadonlySet<string>,
): Map<string, Known> {
  const added = new Map<string, { readonly events: PourEvent[], readonly seqs: number[] }>()
  fresh.forEach((entry, i) => {
    if (!written.has(entry.event.id)) return
    const own = added.get(entry.pour) ?? { events: [], seqs: [] }
    own.events.push(asRead(entry))
    own.seqs.push(first + i)
    added.set(entry.pour, own)
  })
  return new Map([...added].map(([id, { events, seqs }]) => [id, grown(found.get(id)!, events, seqs)]))
}

async function writeTogether(together: readonly Sent[]): Promise<void> {
  const { scope } = together[0]!
  const { before, last, found, fates, written } = await scope.transaction(async (inner, trx) => {
    // Taking the numbers first keeps every other writer of this workshop out until the end. Entries that are known
    // already leave theirs unused.
    const most = together.reduce((n, s) => n + s.events.length, 0),
      last = await inner.bumpEvents(most),
      before = last - most
    const found = await upToNow(inner, before, [...new Set(together.map(s => s.pour))])
    const { fresh, fates } = sortEntries(together, found)
    const written = await append(inner, before + 1, fresh)
    if (written.size > 0) {
      const was = new Map([...found].map(([id, known]) => [id, lastOf(known)]))
      const changed = await project(inner, grownBy(found, fresh, before + 1, written))
      for (const [id, now] of changed) found.set(id, now)
      await announceAll(
        trx,
        scope.workshopId,
        [...changed].map(([pour, now]) => ({ what: 'pour', pour, after: was.get(pour)!, seq: lastOf(now) })),
      )
    }
    return { before, last, found, fates, written }
  })
  keep(scope.workshopId, before, last, found)
  const elsewhere = { fate: 'refused', code: 'elsewhere', sentence: notTakenWords({ code: 'elsewhere' }) } as const
  for (const sent of together) {
    const known = found.get(sent.pour), own = fates.get(sent)
    sent.resolve(known && {
      events: known.events.filter((_, i) => known.seqs[i]! > sent.after),
      seq: lastOf(known),
      fates: [...own?.values() ?? []].map(f => f.fate === 'stored' && !written.has(f.id) ? { ...elsewhere, id: f.id } : f),
    })
  }
}

/** A pour as it comes out of an archive or a generator. @see restorePours */
export interface WholePour {
  readonly id: string
  readonly planId?: string
  readonly run: FrozenRun
  readonly startedBy: string
  readonly createdAt: Date
  readonly entries: readonly WholeEntry[]
}
export interface WholeEntry {
  readonly event: SentEvent
  readonly actor: string
  readonly skewMs: number
  readonly receivedAt: Date
}

/**
 * Writes pours that are over with all their entries, projected and counted. Call within a transaction. @throws
 * Refused when an entry does not belong to its run, or an id is taken.
 */
export async function restorePours(inner: Scope, pours: readonly WholePour[]): Promise<void> {
  for (const p of pours) checkAgainst(p.run, p.entries.map(e => e.event))
  const plans = await plansHere(inner, pours.map(p => p.planId))
  const made = await inner.insert(
    'pour',
    pours.map(p => ({
      id: p.id,
      plan_id: planHere(plans, p.planId),
      run: JSON.stringify(p.run),
      started_by: p.startedBy,
      created_at: p.createdAt,
    })),
  ).onConflict(c => c.columns(['workshop_id', 'id']).doNothing()).returning(['id', 'run']).execute()
  if (made.length < pours.length) throw new Refused('entries', undefined, 'A pour with this id is here already.')
  const all = pours.flatMap(p => p.entries.map(e => ({ pour: p.id, ...e }))),
    last = await inner.bumpEvents(all.length),
    first = last - all.length + 1
  for (let i = 0; i < all.length; i += MOST_ROWS) await appendAll(inner, first + i, all.slice(i, i + MOST_ROWS))
  const runs = new Map(made.map(m => [m.id, m.run]))
  await project(
    inner,
    new Map(
      pours.map(
        p => [
          p.id,
          grown(
            { run: runs.get(p.id)!, events: [], ids: new Set(), seqs: [], tallies: [] },
            all.filter(e => e.pour === p.id).map(asRead),
            all.flatMap((e, i) => e.pour === p.id ? first + i : []),
          ),
        ],
      ),
    ),
  )
}
/** PostgreSQL takes 65 535 parameters in one question. */
const MOST_ROWS = 2000

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
