import { randomUUID } from 'node:crypto'
import { sql } from 'kysely'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { METRIC } from '../../core/units/units'
import { COUNTED, NO_COUNTS, talliesOf, type Counts } from '../../core/logbook/tallies'
import type { PaceTaken } from '../../core/pour/pace-taken'
import { REAL_TIME } from '../../contract/clock'
import { logbookQuerySchema, type LogbookQuery } from '../../contract/logbook'
import { seedDemo } from '../../demo/seed'
import { dropView, findPours, logbookViews, saveView, setTimes, talliesOfWorkshop } from '../../server/store/logbook'
import type { Db } from '../../server/store/open'
import { paceOf } from '../../server/store/pace'
import { logbookPages, pourRows } from '../../server/store/pours'
import { bringUpToDate } from '../../server/store/projecting'
import { recordEvents } from '../../server/store/recording'
import { restorePours } from '../../server/store/restoring'
import { within, type Scope } from '../../server/store/scope'
import { createWithOwner } from '../../server/store/workshops'
import { freshDatabase } from './fresh'

/** A season of the demo on a real database. */
let db: Db, close: () => Promise<void>, scope: Scope, other: Scope
const NOW = Date.UTC(2026, 10, 20, 12)
const query = (over: Partial<LogbookQuery> = {}) => logbookQuerySchema.parse(over)

beforeAll(async () => {
  ({ db, close } = await freshDatabase())
  await seedDemo(db, NOW)
  const { id } = await db.selectFrom('workshop').select('id').executeTakeFirstOrThrow()
  scope = within(db, id)
  other = within(
    db,
    (await createWithOwner(db, { name: 'Two', units: METRIC, clock: REAL_TIME, demo: false }, {
      name: 'T',
      email: 'two@example.org',
      passwordHash: 'x',
    })).workshopId,
  )
})
afterAll(() => close())

/** The counts read from the pours themselves. */
async function countedAnew(): Promise<Map<string, Counts>> {
  const sums = new Map<string, Counts>()
  for await (const page of logbookPages(scope)) {
    for (const t of page.flatMap(p => talliesOf(p.summary, p.casts))) {
      const key = `${t.series} ${t.key} ${t.month}`, known = sums.get(key) ?? NO_COUNTS
      sums.set(key, Object.fromEntries(COUNTED.map(c => [c, known[c] + t.counts[c]])) as unknown as Counts)
    }
  }
  return sums
}
async function countedAsKept(): Promise<Map<string, Counts>> {
  const rows = await scope.select('tally').selectAll().execute()
  return new Map(
    rows.filter(r => r.pours !== 0).map(
      r => [`${r.series} ${r.key} ${r.month}`, {
        pours: r.pours,
        casts: r.casts,
        judged: r.judged,
        good: r.good,
        second: r.second,
        waste: r.waste,
        powderGrams: r.powder_grams,
        costHundredths: r.cost_hundredths,
        pieces: r.pieces,
        tookCasts: r.took_casts,
        tookCubicMillimetres: r.took_mm3,
      }],
    ),
  )
}

describe('finding pours', () => {
  it('by words that all are in it, each the beginning of one, whatever signs are typed', async () => {
    const all = await pourRows(scope)
    const tiles = all.filter(p => p.summary.name.toLowerCase().includes('tile'))
    const found = await findPours(scope, query({ find: 'TIL' }))
    expect(found.count).toBeGreaterThanOrEqual(tiles.length)
    expect(found.rows.map(r => r.id)).toEqual(expect.arrayContaining(tiles.map(t => t.id)))
    expect((await findPours(scope, query({ find: 'tile zzz' }))).rows).toEqual([])
    for (const find of ['\'', '& | !', 'a:*b', '(', '"drop table"', '\\']) await findPours(scope, query({ find }))
  })

  it('by facts and by month, and what is found is so', async () => {
    const wasted = await findPours(scope, query({ facts: ['verdict:waste'] }))
    expect(wasted.count).toBeGreaterThan(0)
    expect(wasted.rows.every(r => r.summary.verdicts.waste > 0)).toBe(true)
    expect(wasted.count).toBe((await pourRows(scope)).filter(r => r.summary.verdicts.waste > 0).length)
    const october = await findPours(scope, query({ from: '2026-10', to: '2026-10' }))
    expect(october.count).toBe(
      (await pourRows(scope)).filter(r => new Date(r.summary.startedAt!).getUTCMonth() === 9).length,
    )
  })

  it('goes on where a page ended: everything once, the newest first', async () => {
    const run = (await scope.select('pour').select('run').executeTakeFirstOrThrow()).run
    const at = Date.UTC(2020, 0, 1), pours = Array.from({ length: 120 }, () => randomUUID())
    for (const id of pours) {
      await other.transaction(async (inner) => {
        // All at the same moment: the id decides.
        await restorePours(inner, [{
          id,
          run,
          startedBy: 'x',
          createdAt: new Date(at),
          entries: [{
            event: {
              id: randomUUID(),
              kind: 'stage',
              data: { stage: 'ready' },
              version: 1,
              batch: 0,
              happenedAt: at,
              recordedAt: at,
              device: 'd',
              deviceSeq: 1,
            },
            actor: 'x',
            skewMs: 0,
            receivedAt: new Date(at),
          }],
        }])
      })
    }
    const seen: string[] = []
    let after: string | undefined
    do {
      const page = await findPours(other, query(), after)
      expect(page.count).toBe(after ? undefined : 120)
      seen.push(...page.rows.map(r => r.id))
      after = page.next
    } while (after)
    expect(seen).toHaveLength(120)
    expect(new Set(seen)).toEqual(new Set(pours))
  })

  it('never in another workshop’s book', async () => {
    const stranger = within(
      db,
      (await createWithOwner(db, { name: 'Three', units: METRIC, clock: REAL_TIME, demo: false }, {
        name: 'T',
        email: 'three@example.org',
        passwordHash: 'x',
      })).workshopId,
    )
    expect(await findPours(stranger, query())).toEqual({ rows: [], count: 0, next: undefined })
    expect(await talliesOfWorkshop(stranger)).toEqual({ months: [], moulds: [], bags: [], defects: [] })
    expect(await setTimes(stranger)).toEqual([])
  })
})

describe('counts', () => {
  it('kept beside the pours are those of the pours, also after entries were added and taken back', async () => {
    expect(await countedAsKept()).toEqual(await countedAnew())
    const [row] = (await findPours(scope, query({ facts: ['status:finished'] }))).rows
    const at = NOW,
      judged = {
        id: randomUUID(),
        kind: 'judged' as const,
        data: { cast: '1.1', verdict: 'waste' as const, defects: ['crack' as const], note: 'dropped' },
        version: 1 as const,
        happenedAt: at,
        recordedAt: at,
        device: 'd',
        deviceSeq: 1,
      }
    await recordEvents(scope, row!.id, [judged], 'x')
    expect((await talliesOfWorkshop(scope)).defects.map(d => d.name)).toContain('Crack')
    expect(await countedAsKept()).toEqual(await countedAnew())
    await recordEvents(scope, row!.id, [{
      id: randomUUID(),
      kind: 'undo',
      data: { event: judged.id },
      version: 1,
      happenedAt: at + 1,
      recordedAt: at + 1,
      device: 'd',
      deviceSeq: 2,
    }], 'x')
    expect(await countedAsKept()).toEqual(await countedAnew())
  })

  it('give what charts show: months in order, moulds with their names and expected life', async () => {
    const { months, moulds, bags } = await talliesOfWorkshop(scope)
    expect(months.map(m => m.month)).toEqual([...months.map(m => m.month)].sort())
    expect(months.reduce((n, m) => n + m.counts.pours, 0)).toBe(
      (await pourRows(scope)).filter(r => r.summary.status !== 'abandoned').length,
    )
    expect(moulds.every(m => m.name.length > 1)).toBe(true)
    expect(moulds.some(m => (m.lifeCasts ?? 0) > 0)).toBe(true)
    expect(bags.length).toBeGreaterThan(0)
    expect((await talliesOfWorkshop(scope, '2030-01')).months).toEqual([])
  })

  it('projections of older rules are made anew, counts too, and nothing is counted twice', async () => {
    const before = await countedAsKept()
    await sql`update pour_projection set rules = 0, body = body - 'cost', found_by = '{}' where workshop_id = ${scope.workshopId}`
      .execute(db)
    await bringUpToDate(db)
    expect(await countedAsKept()).toEqual(before)
    expect((await findPours(scope, query({ find: 'tile' }))).count).toBeGreaterThan(0)
    await bringUpToDate(db)
    expect(await countedAsKept()).toEqual(before)
  })

  it('set times come in the order of time with what was forecast', async () => {
    const times = await setTimes(scope)
    expect(times.length).toBeGreaterThan(3)
    expect(times.map(t => t.at)).toEqual([...times.map(t => t.at)].sort((a, b) => a - b))
    expect(times.every(t => t.actual > 60 && t.low <= t.expected && t.expected <= t.high)).toBe(true)
  })
})

describe('saved views', () => {
  it('are kept, changed and taken away, in their own workshop', async () => {
    const id = randomUUID(), view = { id, name: 'Waste', query: query({ facts: ['verdict:waste'] }) }
    expect(await saveView(scope, view)).toBe(true)
    expect(await saveView(scope, { ...view, name: 'All waste' })).toBe(true)
    expect(await logbookViews(scope)).toEqual([{ ...view, name: 'All waste' }])
    expect(await dropView(other, id)).toBe(false)
    // The same id elsewhere is another view.
    expect(await saveView(other, view)).toBe(true)
    expect(await logbookViews(scope)).toEqual([{ ...view, name: 'All waste' }])
    expect(await dropView(other, id)).toBe(true)
    expect(await dropView(scope, id)).toBe(true)
    expect(await logbookViews(scope)).toEqual([])
  })
})

describe('the pace of a person', () => {
  it('is learnt from their own steps in their own workshop, and of nobody else there is none', async () => {
    const taken: PaceTaken[] = []
    for await (const page of logbookPages(scope)) taken.push(...page.flatMap(p => p.summary.pace ?? []))
    const people = [...new Set(taken.map(t => t.who))]
    expect(people.length).toBeGreaterThan(0)
    for (const who of people) {
      const pace = await paceOf(scope, who), sifted = taken.filter(t => t.who === who && t.step === 'sift')
      expect(pace.sift?.steps ?? 0).toBeLessThanOrEqual(sifted.length)
      if (sifted.length > 0) expect(pace.sift!.steps).toBeGreaterThan(0)
      for (const { mean, sd } of Object.values(pace)) expect(Math.abs(mean) < 1.61 && sd > 0 && sd < 0.54).toBe(true)
    }
    expect(await paceOf(scope, randomUUID())).toEqual({})
    expect(await paceOf(other, people[0]!)).toEqual({})
  })
})
