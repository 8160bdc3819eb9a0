import type { PourEvent } from '~core/pour/events'
import type { FrozenRun } from '~core/plan/run'
import { entries } from '../metrics'
import { MOST_ENTRIES } from '~contract/limits'
import type { Fate, SentEvent, TakenAnswer } from '~contract/pour'
import { notTakenWords } from '../words'
import { announceAll } from './announce'
import { append, appendAll, asRead, checkAgainst, faultFinder, planHere, plansHere, type Fresh } from './appending'
import { grown, keep, lastOf, upToNow, type Known } from './pours-in-hand'
import { project } from './projecting'
import type { Scope } from './scope'

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
      const was = new Map([...found].map(([id, known]) => [id, lastOf(known)])),
        told = new Map([...found].map(([id, known]) => [id, known.library]))
      const changed = await project(inner, grownBy(found, fresh, before + 1, written))
      for (const [id, now] of changed) found.set(id, now)
      const things = [...changed].some(([pour, now]) => now.library !== told.get(pour))
      await announceAll(trx, scope.workshopId, [
        ...[...changed].map(([pour, now]) => ({ what: 'pour' as const, pour, after: was.get(pour)!, seq: lastOf(now) })),
        ...things ? [{ what: 'library' as const }] : [],
      ])
    }
    return { before, last, found, fates, written }
  })
  keep(scope.workshopId, before, last, found)
  entries.inc(written.size)
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
