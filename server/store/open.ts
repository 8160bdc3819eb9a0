import { Kysely, Migrator, PostgresDialect, type Migration, type PostgresPool } from 'kysely'
import pg from 'pg'
import * as m0001 from './migrations/0001-first-workshop'
import * as m0002 from './migrations/0002-meshes'
import * as m0003 from './migrations/0003-photos'
import * as m0004 from './migrations/0004-links'
import * as m0005 from './migrations/0005-logbook'
import * as m0006 from './migrations/0006-cast-photos'
import * as m0007 from './migrations/0007-versions'
import * as m0008 from './migrations/0008-mended'
import * as m0009 from './migrations/0009-standing'
import * as m0010 from './migrations/0010-own-keys'
import * as m0011 from './migrations/0011-doubt'
import * as m0012 from './migrations/0012-epoch'
import * as m0013 from './migrations/0013-accounts'
import * as m0014 from './migrations/0014-devices'
import * as m0015 from './migrations/0015-imports'
import * as m0016 from './migrations/0016-second-wall'
import * as m0017 from './migrations/0017-orders'
import * as m0018 from './migrations/0018-jobs'
import * as m0019 from './migrations/0019-classes'
import * as m0020 from './migrations/0020-passkeys'
import * as m0021 from './migrations/0021-homes'
import * as m0022 from './migrations/0022-pages'
import type { Database } from './schema'
import { Pools } from './pools'
import { putWall } from './second-wall'

const MIGRATIONS: Record<string, Migration> = {
  '0001-first-workshop': m0001,
  '0002-meshes': m0002,
  '0003-photos': m0003,
  '0004-links': m0004,
  '0005-logbook': m0005,
  '0006-cast-photos': m0006,
  '0007-versions': m0007,
  '0008-mended': m0008,
  '0009-standing': m0009,
  '0010-own-keys': m0010,
  '0011-doubt': m0011,
  '0012-epoch': m0012,
  '0013-accounts': m0013,
  '0014-devices': m0014,
  '0015-imports': m0015,
  '0016-second-wall': m0016,
  '0017-orders': m0017,
  '0018-jobs': m0018,
  '0019-classes': m0019,
  '0020-passkeys': m0020,
  '0021-homes': m0021,
  '0022-pages': m0022,
}

// Every bigint here is a millisecond count, far below 2^53.
pg.types.setTypeParser(pg.types.builtins.INT8, Number)

/** A database that does not answer at all counts as away after this long. */
const CONNECT_MS = 10_000

export type Db = Kysely<Database>

/**
 * Brings a database to the newest schema. Safe when two servers start at once. @throws with the failing migration's
 * name. @param stopAt for tests: a schema of old
 */
export async function migrateToLatest(db: Db, stopAt?: string): Promise<void> {
  const migrator = new Migrator({ db, provider: { getMigrations: async () => MIGRATIONS } })
  const { error, results } = await (stopAt ? migrator.migrateTo(stopAt) : migrator.migrateToLatest())
  if (error) {
    const failed = results?.find(r => r.status === 'Error')?.migrationName
    throw new Error(`The database could not be brought up to date${failed ? ` (${failed})` : ''}.`, { cause: error })
  }
}

/**
 * What a request may hold of the database: a question that runs for longer, waits longer for somebody else's, or a
 * transaction that is left lying is ended, ms.
 */
const LIMITS = { statement_timeout: 60_000, lock_timeout: 20_000, idle_in_transaction_session_timeout: 60_000 }

/** Connections of a server to one database, one of which listens; and how many of them only read. */
const MOST = 12, TO_READ = 6

interface Opening {
  /** Requests are served by it; bringing a large database up to date takes as long as it takes. */
  readonly limited?: boolean
  /** Connections. */
  readonly most?: number
  /** It is entered as a role that the database itself walls in: second-wall.ts. */
  readonly walled?: boolean
}

/** SQLSTATE transaction_resolution_unknown: whether it is kept can only be seen later. */
class LoneCommit extends Error {
  readonly code = '08007'
  constructor() {
    super('Written on one machine; the standby that must have it too did not say so in time.')
  }
}

/**
 * Where a standby must have what is acknowledged, a wait for it that somebody breaks off (pg_cancel_backend) ends with
 * a notice and success, though only one machine has it. That is no acknowledgement: it fails, and is sent again.
 * PostgreSQL names where in it the notice was made; its own manual, “Planning for High Availability”.
 */
function doubtLoneCommits(client: pg.PoolClient): void {
  let alone = false
  client.on('notice', (notice) => { alone ||= notice.routine === 'SyncRepWaitForLSN' })
  const ask = client.query.bind(client) as (...given: readonly unknown[]) => unknown
  client.query = ((...given: readonly unknown[]) => {
    const asked = ask(...given)
    if (!(asked instanceof Promise)) return asked
    return asked.then((answer: unknown) => {
      if (!alone) return answer
      alone = false
      throw new LoneCommit()
    })
  }) as typeof client.query
}

export function connect(
  url: string,
  { limited = false, most = MOST, walled = false }: Opening = {},
): { readonly db: Db, readonly pool: Pools } {
  const settings = { connectionString: url, max: most, connectionTimeoutMillis: CONNECT_MS, ...limited && LIMITS }
  const pool = new Pools(settings, limited && most === MOST ? TO_READ : 0)
  pool.onConnect(doubtLoneCommits)
  const db = new Kysely<Database>({ dialect: new PostgresDialect({ pool: pool as unknown as PostgresPool }) })
  if (walled) putWall(db, pool)
  return { db, pool }
}
