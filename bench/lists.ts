import { mkdtempSync } from 'node:fs'
import { randomUUID } from 'node:crypto'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { sql } from 'kysely'
import { startCluster } from '../bin/cluster.mjs'
import { castsOf, freezeRun } from '../core/plan/run'
import { REAL_TIME } from '../contract/clock'
import { METRIC } from '../core/units/units'
import type { SentEvent } from '../contract/pour'
import { chance } from '../demo/random'
import { tell } from '../demo/history'
import { BUCKETS, makeIds, MOULDS, planOf, WISHES } from '../demo/saltmarsh'
import { castRows, confirmedCauses, pourRows } from '../server/store/pours'
import { connect, migrateToLatest } from '../server/store/open'
import { recordEvents, startPour } from '../server/store/recording'
import { within } from '../server/store/scope'
import { createWithOwner } from '../server/store/workshops'

/**
 * Lists of a workshop of many seasons, straight from the store: 100 000 pours of three casts, of which some stand open;
 * and what one more entry takes on a pour of many. `npx tsx --tsconfig tsconfig.tools.json bench/lists.ts`
 */
const POURS = 100_000, CASTS = 3, OPEN = 20, TIMES = 200
const cluster = await startCluster(join(mkdtempSync(join(tmpdir(), 'ripples-')), 'pg'), { throwaway: true })
const { db, pool } = connect(cluster.url('postgres'))
await migrateToLatest(db)
const { workshopId } = await createWithOwner(db, { name: 'Lists', units: METRIC, clock: REAL_TIME, demo: false }, {
  name: 'L', email: 'l@example.org', passwordHash: 'x',
})
const scope = within(db, workshopId), ids = makeIds(chance(3)), NOW = Date.now(), DAY = 86_400_000
const frozen = freezeRun({ ...planOf(ids, WISHES.lanterns), bag: undefined }, {
  moulds: [{ id: ids.moulds.lantern, ...MOULDS.lantern }],
  bucket: { id: ids.buckets.bowl, ...BUCKETS.bowl },
})
if (!frozen.ok) throw new Error('refused')
const { run } = frozen

async function one(progress: 'finished' | 'setting', wetAt: number): Promise<string> {
  const id = randomUUID(), events = tell(run, { wetAt, progress }, NOW, { ...chance(4), id: randomUUID }, 'd')
  await startPour(scope, { id, run, first: events, actor: 'x' })
  return id
}
const model = await one('finished', NOW - 100 * DAY)
for (let i = 0; i < OPEN; i++) await one('setting', NOW - 60_000 * (i + 20))
// One real pour and its casts, copied: lists read projections only.
await sql`
  with made as (
    insert into pour (id, workshop_id, run, started_by)
    select gen_random_uuid(), workshop_id, '{"schema": 1}', 'x' from pour, generate_series(1, ${POURS}::int) where id = ${model}
    returning id
  ), shown as (
    insert into pour_projection (pour_id, workshop_id, status, started_at, body, found_by, tallies, rules, seq)
    select made.id, p.workshop_id, p.status, p.started_at - (random() * 3e11)::bigint, p.body, p.found_by, p.tallies, p.rules, p.seq
    from made, pour_projection p where p.pour_id = ${model}
    returning pour_id
  )
  insert into cast_projection (pour_id, cast_id, workshop_id, status, finished_at, body)
  select made.id, c.cast_id, c.workshop_id, c.status, c.finished_at - (random() * 3e11)::bigint, c.body from made,
    (select * from cast_projection where pour_id = ${model} order by cast_id limit ${CASTS}) c
`.execute(db)
await sql`analyze`.execute(db)

function quantile(all: readonly number[], q: number): string {
  return [...all].sort((a, b) => a - b)[Math.min(all.length - 1, Math.floor(q * all.length))]!.toFixed(1)
}
async function timed(name: string, work: () => Promise<unknown>, times = TIMES): Promise<void> {
  const took: number[] = []
  for (let i = 0; i < times; i++) {
    const from = performance.now()
    await work()
    took.push(performance.now() - from)
  }
  console.log(`${name}: median ${quantile(took, 0.5)} ms, p95 ${quantile(took, 0.95)} ms`)
}
const { n: pours } = await scope.select('pour_projection').select(sql<number>`count(*)::int`.as('n')).executeTakeFirstOrThrow()
const { n: casts } = await scope.select('cast_projection').select(sql<number>`count(*)::int`.as('n')).executeTakeFirstOrThrow()
console.log(`${pours} pours, ${casts} casts, ${(await castRows(scope, NOW - 7 * DAY)).length} of them told as standing`)
await timed('casts that stand', () => castRows(scope, NOW - 7 * DAY))
await timed('confirmed causes', () => confirmedCauses(scope))
await timed('the last five hundred pours', () => pourRows(scope))

for (const entries of [500, 5000, 9700]) {
  const id = randomUUID(), cast = castsOf(run)[0]!.id
  let seq = 0
  const event = (at: number): SentEvent => ({
    id: randomUUID(), kind: 'cast-weighed', data: { cast, mass: 0.5 + 1e-6 * seq }, version: 2, happenedAt: NOW + at,
    recordedAt: NOW + at, device: 'd', deviceSeq: ++seq,
  })
  const first = { ...event(0), kind: 'stage', data: { stage: 'ready', from: 'unbegun' }, batch: 0 } as SentEvent
  await startPour(scope, { id, run, first: [first], actor: 'x' })
  while (seq < entries) await recordEvents(scope, id, Array.from({ length: 250 }, () => event(seq)), 'x', 0, 2 ** 31 - 1)
  await timed(`one more entry after ${entries}`, () => recordEvents(scope, id, [event(seq)], 'x', 0, 2 ** 31 - 1), 40)
}
await pool.end()
await cluster.stop()
