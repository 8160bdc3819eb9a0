import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { sql } from 'kysely'
import { startCluster } from '../bin/cluster.mjs'
import { launch } from '../tests/product'
import { bringUpToDate } from '../server/store/projecting'
import { connect } from '../server/store/open'
import { seasons } from './seasons'

/**
 * The lists of a workshop of many seasons made anew, as after a change of the model: 100 000 pours by the fold of all
 * their entries, broken off in the middle once. `npx tsx --tsconfig tsconfig.tools.json bench/rules.ts [pours]`
 */
const POURS = Number(process.argv[2] ?? 100_000), REAL = 500
const cluster = await startCluster(join(mkdtempSync(join(tmpdir(), 'ripples-')), 'pg'), { throwaway: true })
const product = await launch(cluster.url(''), { demo: true })
const { db, pool } = connect(product.databaseUrl, { most: 1 })
await (await seasons(db)).fill(REAL)
await product.kill()
// Real pours with all their entries, copied under other ids.
const other = (id: string, n: number) => sql`md5(${sql.ref(id)}::text || ${String(n)})::uuid`
await sql`create temp table own as select id from pour order by created_at desc limit ${REAL}`.execute(db)
const { top } = await db.selectFrom('pour_event').select(sql<number>`max(seq)`.as('top')).executeTakeFirstOrThrow()
for (let n = 1; n < POURS / REAL; n++) {
  await sql`insert into pour (id, workshop_id, run, started_by, created_at)
    select ${other('id', n)}, workshop_id, run, started_by, created_at from pour where id in (select id from own)`.execute(db)
  await sql`insert into pour_event (id, workshop_id, pour_id, seq, batch, kind, version, data, happened_at, recorded_at,
      skew_ms, device, device_seq, actor)
    select ${other('id', n)}, workshop_id, ${other('pour_id', n)}, seq + ${n}::bigint * ${top}::bigint, batch, kind,
      version, data, happened_at, recorded_at, skew_ms, device || ${String(n)}, device_seq, actor
    from pour_event where pour_id in (select id from own)`.execute(db)
  await sql`insert into pour_projection (pour_id, workshop_id, status, started_at, body, found_by, tallies, rules, seq)
    select ${other('pour_id', n)}, workshop_id, status, started_at, body, found_by, tallies, 0, seq
    from pour_projection where pour_id in (select id from own)`.execute(db)
  await sql`insert into cast_projection (pour_id, workshop_id, cast_id, status, finished_at, body)
    select ${other('pour_id', n)}, workshop_id, cast_id, status, finished_at, body
    from cast_projection where pour_id in (select id from own)`.execute(db)
}
await sql`analyze`.execute(db)
const entries = await db.selectFrom('pour_event').select(sql<number>`count(*)::int`.as('n')).executeTakeFirstOrThrow()
console.log(`${POURS} pours, ${entries.n} entries`)

const began = performance.now(), seconds = () => ((performance.now() - began) / 1000).toFixed(0)
let told = 0, last = 0, longest = 0
class BrokenOff extends Error {}
async function bring(until: number): Promise<void> {
  last = performance.now()
  await bringUpToDate(db, (left) => {
    told++
    longest = Math.max(longest, performance.now() - last)
    last = performance.now()
    if (told % 100 === 0) console.log(`${seconds()} s: ${left} left`)
    if (left < until) throw new BrokenOff()
  }).catch((error: unknown) => {
    if (!(error instanceof BrokenOff)) throw error
  })
}
await bring(POURS / 2)
console.log(`broken off after ${seconds()} s`)
await bring(0)
console.log(`all made anew after ${seconds()} s; told ${told} times, at most ${(longest / 1000).toFixed(1)} s apart`)
await db.destroy()
await pool.end().catch(() => undefined)
await cluster.stop()
