import { spawnSync } from 'node:child_process'
import { mkdtempSync, readdirSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { sql } from 'kysely'
import { startCluster } from '../bin/cluster.mjs'
import { postgresPrograms } from '../bin/setup.mjs'
import { bringUpToDate } from '../server/store/projecting'
import { connect, migrateToLatest, type Db } from '../server/store/open'

/**
 * Databases as earlier versions left them, their pours copied until there are many, brought up to date and broken off
 * once in the middle. `npx tsx --tsconfig tsconfig.tools.json bench/upgrade.ts [pours] [version …]`
 */
const [size = '100000', ...asked] = process.argv.slice(2), POURS = Number(size)
const FOLDER = fileURLToPath(new URL('../tests/server/versions', import.meta.url))
const versions = readdirSync(FOLDER).map(f => f.replace('.dump', '')).filter(v => asked.length === 0 || asked.includes(v)).sort()
const cluster = await startCluster(join(mkdtempSync(join(tmpdir(), 'ripples-')), 'pg'), { throwaway: true })
const seconds = (since: number) => `${((performance.now() - since) / 1000).toFixed(1)} s`

async function asLeft(version: string): Promise<Db> {
  const admin = connect(cluster.url('postgres'), { most: 1 })
  await sql`create database ${sql.id(`v${version}`)}`.execute(admin.db)
  await admin.db.destroy()
  const url = cluster.url(`v${version}`), file = join(FOLDER, `${version}.dump`)
  const put = spawnSync(join(postgresPrograms()!, 'pg_restore'), ['--no-owner', '-d', url, file], { encoding: 'utf8' })
  if (put.status !== 0) throw new Error(put.stderr)
  return connect(url, { most: 1 }).db
}

/** What of a copied row is its own: all else is as in the row it was copied from. */
const OWN: Readonly<Record<string, (n: number, top: number) => string>> = {
  'pour.id': n => `md5(id::text || '${n}')::uuid`,
  'pour_id': n => `md5(pour_id::text || '${n}')::uuid`,
  'pour_event.id': n => `md5(id::text || '${n}')::uuid`,
  'pour_event.seq': (n, top) => `seq + ${n}::bigint * ${top}`,
  'pour_projection.seq': (n, top) => `seq + ${n}::bigint * ${top}`,
  'pour_event.device': n => `device || '-${n}'`,
}
const TABLES = ['pour', 'pour_event', 'pour_projection', 'cast_projection']

/** Copies every pour with all that hangs on it, whatever columns this version had. @returns pours and entries */
async function fill(db: Db): Promise<{ pours: number, entries: number }> {
  const one = async (query: string) => (await sql.raw<{ n: number }>(query).execute(db)).rows[0]!.n
  const top = await one('select max(seq)::int + 1 as n from pour_event'), own = await one('select count(*)::int as n from pour')
  const copies = Math.ceil(POURS / own)
  const { rows } = await sql.raw<{ table: string, columns: string[] }>(
    `select table_name as table, array_agg(column_name::text) as columns from information_schema.columns
      where table_schema = 'public' and is_generated = 'NEVER' and is_identity = 'NO' group by 1`).execute(db)
  await sql.raw('set session_replication_role = replica').execute(db)
  for (const { table, columns } of TABLES.flatMap(t => rows.filter(r => r.table === t))) {
    await sql.raw(`create temp table copied as select * from ${table}`).execute(db)
    for (let n = 1; n < copies; n++) {
      const values = columns.map(c => (OWN[`${table}.${c}`] ?? OWN[c])?.(n, top) ?? c)
      await sql.raw(`insert into ${table} (${columns.join()}) select ${values.join()} from copied`).execute(db)
    }
    await sql.raw('drop table copied').execute(db)
  }
  await sql.raw(`update workshop set event_seq = ${copies}::bigint * ${top}`).execute(db)
  await sql.raw('set session_replication_role = origin').execute(db)
  await sql.raw('analyze').execute(db)
  return { pours: await one('select count(*)::int as n from pour'), entries: await one('select count(*)::int as n from pour_event') }
}

/** What may never change. */
async function digest(db: Db): Promise<string> {
  const { rows } = await sql.raw<{ all: string }>(
    `select concat(count(*), ' ', sum(hashtext(id::text || kind || happened_at::text)::bigint)) as all from pour_event`).execute(db)
  return rows[0]!.all
}

class BrokenOff extends Error {}
/** @returns how often it was told, and the longest silence, s */
async function bring(db: Db, until: number): Promise<string> {
  let told = 0, last = performance.now(), longest = 0
  await bringUpToDate(db, (left) => {
    told++
    longest = Math.max(longest, performance.now() - last)
    last = performance.now()
    if (left < until) throw new BrokenOff()
  }).catch((error: unknown) => {
    if (!(error instanceof BrokenOff)) throw error
  })
  return `told ${told} times, at most ${(longest / 1000).toFixed(1)} s apart`
}

for (const version of versions) {
  const db = await asLeft(version), { pours, entries } = await fill(db), before = await digest(db)
  const tables = performance.now()
  await migrateToLatest(db)
  const words = `${version}: ${pours} pours, ${entries} entries; tables in ${seconds(tables)}`
  const lists = performance.now(), first = await bring(db, pours / 2), half = seconds(lists)
  const second = await bring(db, 0)
  const same = await digest(db) === before ? 'every entry as it was' : 'ENTRIES CHANGED'
  console.log(`${words}; broken off after ${half} (${first}), done after ${seconds(lists)} (${second}); ${same}`)
  await db.destroy()
  const admin = connect(cluster.url('postgres'), { most: 1 })
  await sql`drop database ${sql.id(`v${version}`)}`.execute(admin.db)
  await admin.db.destroy()
}
await cluster.stop()
