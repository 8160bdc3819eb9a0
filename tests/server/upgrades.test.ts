import { spawnSync } from 'node:child_process'
import { readdirSync } from 'node:fs'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import pg from 'pg'
import { sql } from 'kysely'
import { describe, expect, inject, it } from 'vitest'
import { postgresPrograms } from '../../bin/setup.mjs'
import { connect, migrateToLatest, type Db } from '../../server/store/open'
import { findPours, talliesOfWorkshop } from '../../server/store/logbook'
import { castRows, pourWithEvents } from '../../server/store/pours'
import { bringUpToDate } from '../../server/store/projecting'
import { within } from '../../server/store/scope'
import { setAside } from '../../server/store/set-aside'

/**
 * Databases as earlier versions left them: the demo as each wrote it, named by the last change of its tables. They are
 * brought up to date as any workshop's is. bench/README.md says how long many pours take.
 */
const FOLDER = fileURLToPath(new URL('versions', import.meta.url))
const VERSIONS = readdirSync(FOLDER).map(f => f.replace('.dump', '')).sort()

async function asLeft(version: string): Promise<Db> {
  const base = inject('databaseBase'), name = `old${version}_${process.pid}_${Date.now().toString(36)}`
  const admin = new pg.Client({ connectionString: `${base}postgres` })
  await admin.connect()
  await admin.query(`create database ${name}`)
  await admin.end()
  const program = join(postgresPrograms()!, 'pg_restore')
  const put = spawnSync(program, ['--no-owner', '-d', `${base}${name}`, join(FOLDER, `${version}.dump`)], { encoding: 'utf8' })
  if (put.status !== 0) throw new Error(put.stderr)
  return connect(`${base}${name}`).db
}

/** What may never change: what was told, by whom, and what was promised when powder met water. */
async function kept(db: Db) {
  const rows = async <T>(query: string) => (await sql.raw<T>(query).execute(db)).rows
  const count = async (table: string) => (await rows<{ n: number }>(`select count(*)::int as n from ${table}`))[0]!.n
  return {
    things: Object.fromEntries(await Promise.all(['pour', 'library_item', 'plan', 'workshop', 'person'].map(async t => [t, await count(t)]))),
    events: (await rows<{ all: string }>(
      `select md5(string_agg(id::text || kind || happened_at::text, ',' order by id)) as all from pour_event`))[0],
    frozen: await rows(`select id, md5(run::text) as run from pour order by id`),
  }
}

describe.each(VERSIONS)('a database of version %s', (version) => {
  it('is brought up to date, broken off and gone on with, and everything in it opens', async () => {
    const db = await asLeft(version)
    const before = await kept(db), [{ id }] = await db.selectFrom('workshop').select('id').execute() as [{ id: string }]
    await migrateToLatest(db)
    expect(await kept(db)).toEqual(before)
    const lefts: number[] = [], cut = new Error('broken off')
    const first = bringUpToDate(db, (left) => {
      lefts.push(left)
      throw cut
    })
    await first.catch((error: Error) => expect(error).toBe(cut))
    await bringUpToDate(db, left => void lefts.push(left))
    // It says how many are left, and does none a second time.
    expect(lefts).toEqual([...lefts].sort((a, b) => b - a))
    expect(new Set(lefts).size).toBe(lefts.length)
    expect(await kept(db)).toEqual(before)

    const scope = within(db, id)
    expect(await setAside(scope)).toEqual([])
    const pours = await scope.select('pour').select('id').execute()
    expect(pours.length).toBeGreaterThan(0)
    let told = 0
    for (const pour of pours) told += (await pourWithEvents(scope, pour.id))!.events.length
    const all = await scope.select('pour_event').select(sql<number>`count(*)::int`.as('n')).executeTakeFirstOrThrow()
    expect(told).toBe(all.n)
    expect((await findPours(scope, { facts: [], find: '' } as never)).rows.length).toBeGreaterThan(0)
    expect((await talliesOfWorkshop(scope)).months.length).toBeGreaterThan(0)
    expect((await castRows(scope, 0)).length).toBeGreaterThan(0)
    await db.destroy()
  })
})
