// @ts-check
import { spawn } from 'node:child_process'
import {
  chmodSync, existsSync, mkdirSync, readdirSync, readFileSync, renameSync, rmSync, statSync, writeFileSync,
} from 'node:fs'
import { homedir } from 'node:os'
import { join } from 'node:path'
import pg from 'pg'
import { Plain } from './say.mjs'
import { postgresPrograms } from './setup.mjs'

/**
 * Backups of a whole database: one snapshot of everything but what opens a session, as PostgreSQL's own dump, read back
 * into a database of its own before it counts. Beside each file stands a paper of what is in it, table by table.
 */

/** What is not in a backup: sessions, browsers that are known, guesses, secrets that open one door once. */
const LEFT_OUT = ['session', 'known_device', 'guess', 'ticket']

/** @typedef {'nightly' | 'by-hand' | 'before-upgrade'} Why */
/**
 * @typedef {{ version: 1, database: string, made: string, why: Why, bytes: number, tables: Record<string, string>,
 *   migration: string, serverKey?: string }} Paper of one backup; `tables` has count and digest of each
 * @typedef {Paper & { file: string }} Backup
 */

/** Outside of the product's own folder, which may be what is lost. @returns {string} */
export function backupFolder() {
  const said = process.env.BACKUPS, folder = said && said !== 'off'
    ? said
    : join(process.env.XDG_DATA_HOME ?? join(homedir(), '.local/share'), 'nine-ripples/backups')
  mkdirSync(folder, { recursive: true, mode: 0o700 })
  return folder
}

/** @param {string} url @returns {Promise<pg.Client>} */
async function connected(url) {
  const client = new pg.Client({ connectionString: url })
  await client.connect()
  return client
}
/** The same server, another database. @param {string} url @param {string} database */
function beside(url, database) {
  const other = new URL(url)
  other.pathname = `/${database}`
  return other.href
}
/** @param {string} url */
export const databaseOf = url => decodeURIComponent(new URL(url).pathname.slice(1))

/**
 * Runs a program of PostgreSQL's beside whatever else is done; the password goes by the environment and is in no list
 * of processes.
 * @param {string} program @param {string} url @param {string[]} args
 */
async function postgres(program, url, args) {
  const programs = postgresPrograms(), { hostname, port, username, password, searchParams } = new URL(url)
  if (!programs) throw new Plain('PostgreSQL’s own programs are needed for a backup and were not found.')
  const child = spawn(join(programs, program), args, {
    cwd: '/', stdio: ['ignore', 'ignore', 'pipe'],
    env: {
      ...process.env, PGHOST: hostname, PGPORT: port || '5432', PGUSER: decodeURIComponent(username),
      PGPASSWORD: decodeURIComponent(password), PGDATABASE: databaseOf(url),
      ...searchParams.has('sslmode') && { PGSSLMODE: searchParams.get('sslmode') ?? 'prefer' },
    },
  })
  let heard = ''
  child.stderr.on('data', (/** @type {Buffer} */ text) => {
    heard = (heard + text.toString()).slice(-10_000)
  })
  const status = await new Promise(done => child.on('close', done).on('error', done))
  if (status === 0) return
  const said = heard.trim().split('\n').slice(-2).join('\n')
  if (/No space left/.test(said)) throw new Plain('The disk is full: there is no room for a backup.')
  throw new Plain(`The backup could not be made or read:\n${said}`)
}

/**
 * How many rows each table has, and a sum over them that changes with any of them, whatever their order.
 * @param {pg.Client} client @returns {Promise<Record<string, string>>}
 */
async function digestsOf(client) {
  const { rows } = await client.query(`select table_name as name from information_schema.tables
    where table_schema = 'public' and table_type = 'BASE TABLE' order by 1`)
  /** @type {Record<string, string>} */
  const tables = {}
  for (const { name } of rows.filter(r => !LEFT_OUT.includes(r.name))) {
    const { rows: [sum] } = await client.query(`select count(*)::text as n,
      coalesce(sum(hashtextextended(t::text, 0)::numeric), 0)::text as digest from ${pg.escapeIdentifier(name)} t`)
    tables[name] = `${sum.n} ${sum.digest}`
  }
  return tables
}
/** @param {pg.Client} client @returns {Promise<string>} the newest migration; empty in a database that has none */
async function migrationOf(client) {
  const { rows: [known] } = await client.query('select to_regclass(\'kysely_migration\') is not null as there')
  if (!known.there) return ''
  return (await client.query('select name from kysely_migration order by name desc limit 1')).rows[0]?.name ?? ''
}

/** What of two papers differs. @param {Record<string, string>} a @param {Record<string, string>} b */
function differing(a, b) {
  return [...new Set([...Object.keys(a), ...Object.keys(b)])].filter(name => a[name] !== b[name])
}

/**
 * Reads a dump into a database of this name, which must not be there yet, and compares it with its paper.
 * @param {string} url of any database of the server @param {string} name @param {string} file @param {Paper} paper
 */
async function readInto(url, name, file, paper) {
  const admin = await connected(beside(url, 'postgres'))
  try {
    await admin.query(`create database ${pg.escapeIdentifier(name)} template template0 encoding 'UTF8'`)
    await postgres('pg_restore', beside(url, name), [
      '--no-owner', '--no-privileges', '--exit-on-error', '-j', '2', '-d', name, file,
    ])
    const client = await connected(beside(url, name))
    const found = await digestsOf(client).finally(() => client.end())
    const wrong = differing(paper.tables, found)
    if (wrong.length === 0) return
    throw new Plain(`This backup is not what was written down of it (${wrong.join(', ')}). Take another.`)
  }
  catch (error) {
    await dropDatabase(admin, name)
    throw error
  }
  finally {
    await admin.end()
  }
}
/** @param {pg.Client} admin @param {string} name */
const dropDatabase = (admin, name) =>
  admin.query(`drop database if exists ${pg.escapeIdentifier(name)} with (force)`)

/** Of a backup that was broken off by a kill. @param {string} url @param {string} folder */
async function clearLeft(url, folder) {
  for (const name of readdirSync(folder).filter(n => n.endsWith('.part'))) rmSync(join(folder, name), { force: true })
  const admin = await connected(beside(url, 'postgres'))
  const { rows } = await admin.query(`select datname as name from pg_database where datname like 'nine\\_ripples\\_check\\_%'`)
  for (const { name } of rows) await dropDatabase(admin, name)
  await admin.end()
}

/**
 * Makes a backup, reads it back, and only then gives it its name.
 * @param {string} url @param {{ why: Why, now?: Date, serverKey?: string, folder?: string }} how
 * @returns {Promise<Backup>}
 */
export async function makeBackup(url, { why, now = new Date(), serverKey, folder = backupFolder() }) {
  await clearLeft(url, folder)
  const stamp = now.toISOString().slice(0, 19).replace(/:/g, ''), database = databaseOf(url)
  const file = join(folder, `${database}-${stamp}-${why}.dump`), part = `${file}.part`
  const client = await connected(url)
  /** @type {Paper} */
  let paper
  try {
    // One snapshot for the dump and for what is written down of it, whatever is told meanwhile.
    await client.query('begin transaction isolation level repeatable read read only')
    const { rows: [{ id }] } = await client.query('select pg_export_snapshot() as id')
    writeFileSync(part, '', { mode: 0o600 })
    // Squeezed lightly: three fifths of the time for a fourth more room (4 000 pours: 5.3 and 3.1 s, 16 and 21 MB).
    const dumped = postgres('pg_dump', url, [
      '-Fc', '-Z1', '--no-owner', '--no-privileges', `--snapshot=${id}`, '-f', part,
      ...LEFT_OUT.map(t => `--exclude-table-data=public.${t}`),
    ])
    const [tables] = await Promise.all([digestsOf(client), dumped]), migration = await migrationOf(client)
    await client.query('commit')
    paper = {
      version: 1, database, made: now.toISOString(), why, bytes: statSync(part).size, tables, migration,
      ...serverKey && { serverKey },
    }
  }
  finally {
    await client.end()
  }
  const check = `nine_ripples_check_${process.pid}_${now.getTime()}`
  try {
    await readInto(url, check, part, paper)
  }
  finally {
    const admin = await connected(beside(url, 'postgres'))
    await dropDatabase(admin, check).finally(() => admin.end())
  }
  chmodSync(part, 0o600)
  writeFileSync(paperOf(file), JSON.stringify(paper, undefined, 2), { mode: 0o600 })
  renameSync(part, file)
  return { ...paper, file }
}
/** @param {string} file */
const paperOf = file => file.replace(/\.dump$/, '.json')

/** Those of this database, or of all; the newest first. @param {string} [database] @returns {Backup[]} */
export function backups(database, folder = backupFolder()) {
  return readdirSync(folder).filter(n => n.endsWith('.dump')).flatMap((name) => {
    const file = join(folder, name)
    if (!existsSync(paperOf(file))) return []
    /** @type {Paper} */
    const paper = JSON.parse(readFileSync(paperOf(file), 'utf8'))
    return paper.version === 1 && (!database || paper.database === database) ? [{ ...paper, file }] : []
  }).sort((a, b) => a.made < b.made ? 1 : -1)
}

const DAILY = 7, WEEKLY = 4, UPGRADES = 3
/** @param {string} made */
const dayOf = made => made.slice(0, 10)
/** Monday of its week. @param {string} made */
function weekOf(made) {
  const day = new Date(`${dayOf(made)}T00:00:00Z`)
  day.setUTCDate(day.getUTCDate() - (day.getUTCDay() + 6) % 7)
  return day.toISOString().slice(0, 10)
}
/**
 * Which of these nobody needs any more: of nightly ones the newest of each of the last seven days and of the last four
 * weeks are kept, of those before an upgrade the last three, and whatever was made by hand.
 * @template {{ made: string, why: Why }} T @param {readonly T[]} all the newest first @returns {T[]}
 */
export function outlived(all) {
  const nightly = all.filter(b => b.why === 'nightly')
  /** @param {(made: string) => string} of @param {number} most */
  const newestOf = (of, most) => {
    const first = new Map()
    for (const b of nightly) if (!first.has(of(b.made))) first.set(of(b.made), b)
    return [...first.values()].slice(0, most)
  }
  const kept = new Set([
    ...newestOf(dayOf, DAILY), ...newestOf(weekOf, WEEKLY), ...all.filter(b => b.why === 'before-upgrade').slice(0, UPGRADES),
    ...all.filter(b => b.why === 'by-hand'),
  ])
  return all.filter(b => !kept.has(b))
}
/** @param {string} database */
export function takeAwayOld(database, folder = backupFolder()) {
  for (const { file } of outlived(backups(database, folder))) {
    rmSync(file, { force: true })
    rmSync(paperOf(file), { force: true })
  }
}

/**
 * Before records are brought up to date; nothing where there are none yet, or they are new enough.
 * @param {string} url @param {string} newest migration @param {{ serverKey?: string }} how
 */
export async function backUpBeforeUpgrade(url, newest, { serverKey }) {
  const client = await connected(url).catch((error) => {
    if (error.code === '3D000') return undefined
    throw error
  })
  const migration = client && await migrationOf(client).finally(() => client.end())
  if (!migration || migration >= newest) return undefined
  const made = await makeBackup(url, { why: 'before-upgrade', ...serverKey && { serverKey } })
  takeAwayOld(databaseOf(url))
  return made
}

const HOUR = 3_600_000, NIGHT = 3
/** Whether the nightly one is due: three in the morning is past, and there was none since. @param {Date} now */
export function isNightlyDue(now, /** @type {string | undefined} */ last) {
  const night = new Date(now)
  night.setHours(NIGHT, 0, 0, 0)
  if (now < night) night.setDate(night.getDate() - 1)
  return last === undefined || new Date(last) < night
}
/**
 * Looks every hour whether the night's backup is due: also on a machine that sleeps at night.
 * @param {string} url @param {{ serverKey?: string, tell: (sentence: string) => void }} how
 * @returns {() => void} ends it
 */
export function backUpNightly(url, { serverKey, tell }) {
  let busy = false
  async function look() {
    const last = backups(databaseOf(url)).find(b => b.why === 'nightly')
    if (busy || !isNightlyDue(new Date(), last?.made)) return
    busy = true
    await makeBackup(url, { why: 'nightly', ...serverKey && { serverKey } })
      .then(() => takeAwayOld(databaseOf(url)), error => tell(`The night’s backup was not made: ${error.message}`))
    busy = false
  }
  const timer = setInterval(look, HOUR), first = setTimeout(look, HOUR / 60)
  timer.unref()
  first.unref()
  return () => {
    clearInterval(timer)
    clearTimeout(first)
  }
}

/**
 * Puts a backup in the place of the database it was made of. What was there stays, under another name; browsers see
 * another database, and send again what they still hold.
 * @param {string} url where the records are to be @param {Backup} backup
 * @returns {Promise<string | undefined>} the name under which the former records stay
 */
export async function restoreBackup(url, backup, now = new Date()) {
  const name = databaseOf(url), stamp = now.toISOString().slice(0, 19).replace(/[^0-9]/g, '')
  const fresh = `nine_ripples_restore_${stamp}`, former = `${name}_before_${stamp}`
  const admin = await connected(beside(url, 'postgres'))
  try {
    const { rows: [{ there, busy }] } = await admin.query(`select
      (select count(*)::int from pg_database where datname = $1) as there,
      (select count(*)::int from pg_stat_activity where datname = $1) as busy`, [name])
    if (busy > 0) throw new Plain('Somebody is at work in these records. Stop the server first, then restore.')
    await readInto(url, fresh, backup.file, backup)
    if (there) await admin.query(`alter database ${pg.escapeIdentifier(name)} rename to ${pg.escapeIdentifier(former)}`)
    await admin.query(`alter database ${pg.escapeIdentifier(fresh)} rename to ${pg.escapeIdentifier(name)}`)
    return there ? former : undefined
  }
  finally {
    await admin.end()
  }
}

/** @param {number} bytes */
export const sizeWords = bytes => bytes < 1e6 ? `${Math.ceil(bytes / 1e3)} kB` : `${(bytes / 1e6).toFixed(1)} MB`
/** A line of the list. @param {Backup} b */
export function backupWords({ file, made, why, bytes, tables }) {
  const WHY = { 'nightly': 'nightly', 'by-hand': 'by hand', 'before-upgrade': 'before an upgrade' }
  const pours = tables.pour?.split(' ')[0] ?? '0'
  const [when, size] = [new Date(made).toLocaleString('en-GB'), sizeWords(bytes)]
  return [when, WHY[why].padEnd(17), size.padStart(9), `${pours.padStart(7)} pours`, file].join('  ')
}
