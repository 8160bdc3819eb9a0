import { pipeline } from 'node:stream/promises'
import pg from 'pg'
import { from as copyFrom, to as copyTo } from 'pg-copy-streams'
import { IMPORT_STATES, isUnderWay } from '~contract/import-state'
import { CHANNEL } from './announce'
import { RECORD_TABLES, type RecordTable } from './homes'
import { APPLICATION_ROLE } from './second-wall'

/**
 * Moves a workshop's records into another database while it is in use. They are copied from one snapshot, then what
 * changed meanwhile; then nothing is written for a moment, what changed last is copied, both are compared row by row,
 * and from then on they are there. Whoever writes in that moment is answered as when a database is away: screens keep
 * it and send it again. Broken off anywhere, it can be begun again; nothing is deleted where the records were (a week
 * later: tidying.ts).
 */
export type MoveRefusal
  = 'no-such-workshop' | 'no-such-home' | 'there-already' | 'import-under-way' | 'other-version' | 'no-wall' | 'not-alike'
    | 'under-way'
export class MoveRefused extends Error {
  constructor(readonly code: MoveRefusal) {
    super(code)
  }
}

/** How far it is: copied whole, caught up while in use, stopped, compared, there. */
export type MoveStep = 'copying' | 'catching-up' | 'stopped' | 'comparing' | 'there'
export type Telling = (step: MoveStep) => void | Promise<void>
export interface Addresses { readonly first: string, readonly homes: Readonly<Record<string, string>> }
export interface Moved { readonly rows: number, readonly stoppedMs: number }

interface Ends { readonly front: pg.Client, readonly from: pg.Client, readonly to: pg.Client }
const quoted = pg.escapeIdentifier

async function open(url: string): Promise<pg.Client> {
  const client = new pg.Client({ connectionString: url })
  await client.connect()
  // Rows are compared as text.
  await client.query('set timezone to \'UTC\'')
  return client
}

interface Table { readonly name: RecordTable, readonly columns: readonly string[], readonly key: readonly string[] }
async function tablesOf(client: pg.Client): Promise<Table[]> {
  const { rows } = await client.query<Table>(`
    select c.relname as name, array_agg(a.attname::text order by a.attnum) as columns,
      (select array_agg(k.attname::text) from pg_attribute k where k.attrelid = c.oid and k.attnum = any (i.indkey)) as key
    from pg_class c join pg_index i on i.indrelid = c.oid and i.indisprimary
      join pg_attribute a on a.attrelid = c.oid and a.attnum > 0 and not a.attisdropped and a.attgenerated = ''
    where c.relname = any ($1) and c.relnamespace = 'public'::regnamespace group by c.oid, c.relname, i.indkey`,
  [RECORD_TABLES])
  return RECORD_TABLES.map(name => rows.find(r => r.name === name)!)
}

/** Rows of a table from one to the other. @param where which of the source's @param into which table of the target's */
async function pour(
  { from, to }: Ends, { name }: Table, columns: readonly string[], where: string, into: string = name,
): Promise<void> {
  const list = columns.map(quoted).join(', ')
  const out = from.query(copyTo(`copy (select ${list} from ${quoted(name)} where ${where}) to stdout (format binary)`))
  await pipeline(out, to.query(copyFrom(`copy ${quoted(into)} (${list}) from stdin (format binary)`)))
}

const isOf = (workshop: string) => `workshop_id = ${pg.escapeLiteral(workshop)}`

/** Works on both in a transaction each; the source is read as of one moment, of which it returns the name. */
async function together(ends: Ends, work: () => Promise<void>): Promise<string> {
  await ends.from.query('begin isolation level repeatable read read only')
  const { rows: [now] } = await ends.from.query<{ xid: string }>(
    'select (pg_snapshot_xmin(pg_current_snapshot())::text::numeric % 4294967296)::text as xid')
  await ends.to.query('begin')
  try {
    await work()
    await ends.to.query('commit')
  }
  catch (error) {
    await ends.to.query('rollback').catch(() => {})
    throw error
  }
  finally {
    await ends.from.query('rollback').catch(() => {})
  }
  return now!.xid
}

async function clear(client: pg.Client, workshop: string): Promise<void> {
  for (const table of [...RECORD_TABLES].reverse())
    await client.query(`delete from ${quoted(table)} where ${isOf(workshop)}`)
}

/** The workshop's own row, which its records point at. Where it is the first database's, only its counter is new. */
async function copyWorkshop({ from, to }: Ends, workshop: string): Promise<void> {
  const { rows: [row] } = await from.query<Record<string, unknown>>('select * from workshop where id = $1', [workshop])
  const { id, name, units, clock, event_seq, demo } = row!
  await to.query(`insert into workshop (id, name, units, clock, event_seq, demo) values ($1, $2, $3, $4, $5, $6)
    on conflict (id) do update set event_seq = excluded.event_seq`,
  [id, name, JSON.stringify(units), JSON.stringify(clock), event_seq, demo])
}

const copyAll = (ends: Ends, tables: readonly Table[], workshop: string) => together(ends, async () => {
  await clear(ends.to, workshop)
  await copyWorkshop(ends, workshop)
  for (const table of tables) await pour(ends, table, table.columns, isOf(workshop))
})

/**
 * What was written since a moment, and what is gone. By the number of the transaction that wrote each row (PostgreSQL's
 * own manual, “System Columns”: xmin); everything after the oldest that still ran then may be new. Then the target
 * lacks nothing, so that it has more only where it has more rows.
 */
const copySince = (
  ends: Ends, tables: readonly Table[], workshop: string, since: string,
) => together(ends, async () => {
  await copyWorkshop(ends, workshop)
  for (const table of tables) {
    const { name, columns, key } = table, list = columns.map(quoted).join(', ')
    await ends.to.query(`create temp table news (like ${quoted(name)}) on commit drop`)
    await pour(ends, table, columns, `${isOf(workshop)} and age(xmin) <= age('${since}'::xid)`, 'news')
    const others = columns.filter(c => !key.includes(c)).map(c => `${quoted(c)} = excluded.${quoted(c)}`)
    await ends.to.query(`insert into ${quoted(name)} (${list}) select ${list} from news
      on conflict (${key.map(quoted).join(', ')}) do ${others.length > 0 ? `update set ${others.join(', ')}` : 'nothing'}`)
    await ends.to.query('drop table news')
  }
  // The rows that point at others before those.
  for (const table of [...tables].reverse()) await prune(ends, table, workshop)
})

async function rowsOf(client: pg.Client, name: RecordTable, workshop: string): Promise<number> {
  const { rows: [row] } = await client.query<{ n: string }>(
    `select count(*) as n from ${quoted(name)} where ${isOf(workshop)}`)
  return Number(row!.n)
}

/** Takes out of the target what the source has no more. */
async function prune(ends: Ends, table: Table, workshop: string): Promise<void> {
  const { name, key } = table
  if (await rowsOf(ends.from, name, workshop) === await rowsOf(ends.to, name, workshop)) return
  await ends.to.query(`create temp table kept as select ${key.map(quoted).join(', ')} from ${quoted(name)} limit 0`)
  await pour(ends, table, key, isOf(workshop), 'kept')
  await ends.to.query(`delete from ${quoted(name)} t where ${isOf(workshop)}
    and not exists (select from kept k where ${key.map(c => `k.${quoted(c)} = t.${quoted(c)}`).join(' and ')})`)
  await ends.to.query('drop table kept')
}

/** Every row of every table, counted and summed so that any change shows; as backups are compared. */
async function digestsOf(client: pg.Client, tables: readonly Table[], workshop: string): Promise<string[]> {
  const found: string[] = []
  for (const { name, columns } of tables) {
    const { rows: [row] } = await client.query<{ n: string, digest: string }>(`select count(*) as n,
      coalesce(sum(hashtextextended(row(${columns.map(quoted).join(', ')})::text, 0)::numeric), 0)::text as digest
      from ${quoted(name)} where ${isOf(workshop)}`)
    found.push(`${row!.n} ${row!.digest}`)
  }
  return found
}

/** From now on nothing is written where they were: whoever still writes there is waited for, and nobody comes after. */
async function stop({ front, from }: Ends, workshop: string, to: string): Promise<void> {
  await front.query('update workshop set moving = true where id = $1', [workshop])
  await from.query('begin')
  await from.query('select from workshop where id = $1 for update', [workshop])
  await from.query('update workshop set gone_to = $2, gone_at = null where id = $1', [workshop, to])
  await from.query('commit')
}

/** It stays where it was after all. */
async function goOn({ front, from }: Ends, workshop: string): Promise<void> {
  await from.query('update workshop set gone_to = null, gone_at = null where id = $1', [workshop])
  await front.query('update workshop set moving = false where id = $1', [workshop])
}

async function settle({ front, from, to }: Ends, workshop: string, home: string | null): Promise<void> {
  await to.query('update workshop set gone_to = null, gone_at = null where id = $1', [workshop])
  await front.query('begin')
  await front.query('update workshop set home = $2, moving = false where id = $1', [workshop, home])
  // Pages that listen come back, and listen where they are now.
  await front.query('select pg_notify($1, $2)', [CHANNEL, JSON.stringify({ workshop, moved: true })])
  await front.query('commit')
  // Only now is what was left behind a copy that may go: of a move that was broken off nothing ever does.
  await from.query('update workshop set gone_at = now() where id = $1 and gone_to is not null', [workshop])
}

async function versionOf(client: pg.Client): Promise<string | undefined> {
  return (await client.query<{ name: string }>('select max(name) as name from kysely_migration')).rows[0]?.name
}

/** @throws MoveRefused where nothing may be begun */
async function check(ends: Ends, workshop: string): Promise<void> {
  if (await versionOf(ends.from) !== await versionOf(ends.to)) throw new MoveRefused('other-version')
  const { rows: wall } = await ends.from.query('select from pg_roles where rolname = $1', [APPLICATION_ROLE])
  if (wall.length === 0) throw new MoveRefused('no-wall')
  const { rows: imports } = await ends.from.query(`select from import_job where ${isOf(workshop)}
    and state = any ($1) and heard_at > now() - interval '1 minute'`, [IMPORT_STATES.filter(isUnderWay)])
  if (imports.length > 0) throw new MoveRefused('import-under-way')
}

/** @param home where it is to be, null for the first database */
export async function moveWorkshop(
  { first, homes }: Addresses, workshop: string, home: string | null, told: Telling = () => {},
): Promise<Moved> {
  const front = await open(first), clients = [front]
  try {
    const { rows: [lock] } = await front.query<{ had: boolean }>(
      'select pg_try_advisory_lock(hashtextextended($1, 0)) as had', [`move ${workshop}`])
    if (!lock?.had) throw new MoveRefused('under-way')
    const { rows: [row] } = await front.query<{ home: string | null, moving: boolean }>(
      'select home, moving from workshop where id = $1', [workshop])
    if (!row) throw new MoveRefused('no-such-workshop')
    const urls = [row.home, home].map(h => h === null ? first : homes[h])
    if (urls.includes(undefined)) throw new MoveRefused('no-such-home')
    for (const url of urls) clients.push(await open(url!))
    const ends = { front, from: clients[1]!, to: clients[2]! }
    if (row.home !== home) {
      await check(ends, workshop)
      return await carry(ends, workshop, home, told)
    }
    // One that was broken off in its last moment and is not wanted any more: it stays, and goes on.
    if (!row.moving) throw new MoveRefused('there-already')
    await goOn(ends, workshop)
    return { rows: 0, stoppedMs: 0 }
  }
  finally {
    await Promise.all(clients.map(c => c.end().catch(() => {})))
  }
}

async function carry(
  ends: Ends, workshop: string, home: string | null, told: Telling,
): Promise<Moved> {
  const tables = await tablesOf(ends.from)
  await told('copying')
  const copied = await copyAll(ends, tables, workshop)
  await told('catching-up')
  const caught = await copySince(ends, tables, workshop, copied)
  await told('stopped')
  const stopped = performance.now()
  try {
    await stop(ends, workshop, home ?? 'first')
    await copySince(ends, tables, workshop, caught)
    await told('comparing')
    const [were, are] = await Promise.all([ends.from, ends.to].map(c => digestsOf(c, tables, workshop)))
    if (String(were) !== String(are)) throw new MoveRefused('not-alike')
    await settle(ends, workshop, home)
    await told('there')
    return { rows: are!.reduce((n, d) => n + Number(d.split(' ')[0]), 0), stoppedMs: performance.now() - stopped }
  }
  catch (error) {
    await goOn(ends, workshop).catch(() => {})
    throw error
  }
}
