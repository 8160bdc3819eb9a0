import type pg from 'pg'
import { useRuntimeConfig } from '#imports'
import { connect, migrateToLatest, type Db } from './store/open'
import { bringUpToDate } from './store/projecting'
import { isWalled, makeApplicationRole } from './store/second-wall'

let opened: Promise<{ db: Db, pool: pg.Pool }> | undefined

/**
 * The one database of this process, brought up to date before the first query. A failure is not remembered: the next
 * request tries again.
 */
export function database(): Promise<{ db: Db, pool: pg.Pool }> {
  opened ??= (async () => {
    const { databaseUrl } = useRuntimeConfig()
    if (!databaseUrl) throw new Error('No database: set NUXT_DATABASE_URL, or start with bin/start.')
    const connection = connect(databaseUrl)
    let walled = false
    // Brought up to date without limits of time by the owner of the tables, then served with them by a role of its own.
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
    return connect(databaseUrl, { limited: true, walled })
  })().catch((error) => {
    opened = undefined
    throw error
  })
  return opened
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
  const { db } = connect(useRuntimeConfig().databaseUrl, { limited: true, most: 1 })
  await work(db).finally(() => db.destroy())
}

type DatabaseTrouble = 'database-away' | 'database-busy' | 'database-full' | 'database-newer'

/**
 * What keeps the database from answering: it is not there, has no room left, or was written by a newer version.
 * By PostgreSQL's classes 08 (connection exception), 53 (insufficient resources; 53100 is a full disk) and 57P
 * (operator intervention), 25006 (one that may only be read: another is written to by now), 3D000 (no such database),
 * 55000 said of a database that takes no connections; the system's own refusals; and what the driver says of a
 * connection that broke or never came. Busy by 57014 (a question that took too long), 55P03 (a lock that was not had in
 * time), 25P03 (a transaction left lying) and class 40 (rolled back for another's sake, 40P01 a deadlock).
 */
export function databaseTrouble(error: unknown): DatabaseTrouble | undefined {
  const { code = '', cause, errors = [] } = error as { code?: string, cause?: unknown, errors?: readonly unknown[] }
  const said = String(error)
  if (code === '53100' || code === 'ENOSPC') return 'database-full'
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
