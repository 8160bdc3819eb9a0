import { useRuntimeConfig } from '#imports'
import { z } from '~contract/zod'
import { giveHomes, recordsOf } from './store/homes'
import { connect, migrateToLatest, type Db } from './store/open'
import type { Pools } from './store/pools'
import { bringUpToDate } from './store/projecting'
import { isWalled, makeApplicationRole } from './store/second-wall'

interface Opened { readonly db: Db, readonly pool: Pools }
let opened: Promise<Opened> | undefined

/**
 * Where workshops may have their records besides the first database, by name: NUXT_HOMES='{"second":"postgres://…"}'.
 * @throws when that is no such list
 */
export function homeAddresses(): Readonly<Record<string, string>> {
  const { homes } = useRuntimeConfig() as unknown as { readonly homes: unknown }
  return homes ? addressesSchema.parse(typeof homes === 'string' ? JSON.parse(homes) : homes) : {}
}
const addressesSchema = z.record(z.string().regex(/^[a-z][a-z0-9-]{0,30}$/), z.string().regex(/^postgres(ql)?:\/\//))

/** Brings one up to date without limits of time, by the owner of its tables; then it is served by a role of its own. */
async function openOne(url: string): Promise<Opened> {
  const connection = connect(url)
  let walled = false
  try {
    await migrateToLatest(connection.db)
    walled = await makeApplicationRole(connection.db)
    if (!walled) console.info('This database’s user may not make roles: the database puts up no wall of its own.')
    await bringUpToDate(
      connection.db,
      left =>
        console.info(
          left > 0 ? `Bringing the logbook up to date: ${left} pours left.` : 'The logbook is up to date.',
        ),
    )
  }
  finally {
    await connection.pool.end()
  }
  return connect(url, { limited: true, walled })
}

/**
 * The first database of this process, brought up to date before the first query. A failure is not remembered: the next
 * request tries again. A home that is away keeps only its own workshops waiting.
 */
export function database(): Promise<Opened> {
  opened ??= (async () => {
    const { databaseUrl } = useRuntimeConfig()
    if (!databaseUrl) throw new Error('No database: set NUXT_DATABASE_URL, or start with bin/start.')
    const first = await openOne(databaseUrl)
    giveHomes(first.db, new Map(await openHomes()))
    return first
  })().catch((error) => {
    opened = undefined
    throw error
  })
  return opened
}

const homes = new Map<string, Opened>()
/** All homes that can be reached; the others are tried again, until they can. */
async function openHomes(): Promise<[string, Db][]> {
  const missing = Object.entries(homeAddresses()).filter(([name]) => !homes.has(name))
  await Promise.all(missing.map(([name, url]) => openOne(url).then(
    made => void homes.set(name, made),
    (error: unknown) => console.error(`The records of home “${name}” cannot be reached: ${(error as Error).message}`),
  )))
  if (missing.some(([name]) => !homes.has(name))) setTimeout(() => void openAgain(), AGAIN_MS).unref()
  return [...homes].map(([name, { db }]) => [name, db])
}
const AGAIN_MS = 5000
async function openAgain(): Promise<void> {
  const made = await openHomes(), { db } = await database()
  giveHomes(db, new Map(made))
}

/** The database of a home, or the first. @throws as one that is away */
export async function databaseOf(home: string | null): Promise<Opened> {
  const first = await database()
  if (home === null) return first
  recordsOf(first.db, { home, moving: false })
  return homes.get(home)!
}

let copied: Promise<Db> | undefined

/**
 * A copy of the database that is only read, where there is one (docs/operate.md). It has whatever was acknowledged: the
 * proxy leads to no other.
 */
export function copyOfDatabase(): Promise<Db> | undefined {
  const { replicaUrl } = useRuntimeConfig()
  if (!replicaUrl) return undefined
  copied ??= database().then(
    ({ db }) => connect(replicaUrl, { limited: true, walled: isWalled(db) }).db,
    (error) => {
      copied = undefined
      throw error
    },
  )
  return copied
}

/** Short work on all workshops at once, by the owner of the tables, whom no wall holds. */
export async function asOwner(work: (db: Db) => Promise<void>): Promise<void> {
  await database()
  for (const url of [useRuntimeConfig().databaseUrl, ...Object.values(homeAddresses())]) {
    const { db } = connect(url, { limited: true, most: 1 })
    await work(db).finally(() => db.destroy())
  }
}

type DatabaseTrouble = 'database-away' | 'database-busy' | 'database-full' | 'database-newer' | 'workshop-moving'

/**
 * What keeps the database from answering: it is not there, has no room left, or was written by a newer version.
 * By PostgreSQL's classes 08 (connection exception), 53 (insufficient resources; 53100 is a full disk) and 57P
 * (operator intervention), 25006 (one that may only be read: another is written to by now), 3D000 (no such database),
 * 55000 said of a database that takes no connections; the system's own refusals; and what the driver says of a
 * connection that broke or never came. Busy by 57014 (a question that took too long), 55P03 (a lock that was not had in
 * time), 25P03 (a transaction left lying) and class 40 (rolled back for another's sake, 40P01 a deadlock). RM001 is the
 * product's own: what it would have written belongs into another database by now (migration 0021).
 */
export function databaseTrouble(error: unknown): DatabaseTrouble | undefined {
  const { code = '', cause, errors = [] } = error as { code?: string, cause?: unknown, errors?: readonly unknown[] }
  const said = String(error)
  if (code === '53100' || code === 'ENOSPC') return 'database-full'
  if (code === 'RM001') return 'workshop-moving'
  if (/^(57014|55P03|25P03|40)/.test(code)) return 'database-busy'
  if (/previously executed migration .* is missing/.test(said)) return 'database-newer'
  if (
    /^(ECONN|ENOTFOUND|ETIMEDOUT|EHOSTUNREACH|EPIPE|08|25006|53|57P|3D000)/.test(code)
    || (code === '55000' && /accepting connections/.test(said))
    || /Connection terminated|timeout exceeded when trying to connect|Client has encountered a connection error/.test(said)
  ) return 'database-away'
  for (const within of [cause, ...errors]) {
    const found = within instanceof Error ? databaseTrouble(within) : undefined
    if (found) return found
  }
  return undefined
}
