import { Kysely, PostgresDialect, sql, type PostgresPool } from 'kysely'
import type pg from 'pg'
import { LastUsed } from '../last-used'
import type { Db } from './open'
import type { Pools } from './pools'
import type { Database } from './schema'

/**
 * The database's own wall between workshops, behind the one in scope.ts: the server works as a role that owns no table,
 * and PostgreSQL's row security (migration 0016) shows that role the rows of the workshop its connection is set to, and
 * none where it is set to none. It costs about a twentieth (bench/README.md).
 * Where the database's user may not make that role, the first wall stands alone.
 */
export const APPLICATION_ROLE = 'nine_ripples_app'
export const SETTING = 'ripples.workshop'

/** Makes the role, and lets it read and write. @returns whether it is there */
export async function makeApplicationRole(db: Db): Promise<boolean> {
  try {
    const { rows } = await sql`select from pg_roles where rolname = ${APPLICATION_ROLE}`.execute(db)
    const role = sql.id(APPLICATION_ROLE)
    // Another server may make it at this moment: then it is there.
    if (rows.length === 0) await sql`create role ${role} nologin`.execute(db).catch(ifThere)
    await sql`grant ${role} to current_user`.execute(db).catch(ifThere)
    await sql`grant usage on schema public to ${role}`.execute(db)
    await sql`grant select, insert, update, delete on all tables in schema public to ${role}`.execute(db)
    return true
  }
  catch (error) {
    // Class 42501, insufficient privilege.
    if ((error as { code?: string }).code === '42501') return false
    throw error
  }
}
/** Made by somebody else at the same moment: a name taken, or a row of the catalogue changed by both. */
function ifThere(error: unknown): void {
  const { code } = error as { code?: string }
  if (code !== '42710' && code !== '23505' && code !== 'XX000') throw error
}

/** What a connection is set to; it stays so until it is set to something else. */
const setTo = new WeakMap<pg.PoolClient, string>()

/** The same pool, each of whose connections is first set to a workshop; asked only where it was set otherwise. */
function poolFor(pool: Pools, workshop: string): PostgresPool {
  return {
    async connect() {
      const client = await pool.connect()
      if (setTo.get(client) === workshop) return client as never
      try {
        await client.query('select set_config($1, $2, false)', [SETTING, workshop])
      }
      catch (error) {
        client.release(true)
        throw error
      }
      setTo.set(client, workshop)
      return client as never
    },
    end: () => Promise.resolve(),
  }
}

interface Wall { readonly pool: Pools, readonly of: LastUsed<Db> }
const walls = new WeakMap<Db, Wall>()
const MOST_WORKSHOPS = 1000

/** From now on this database is entered as the application's role, and by its wall. */
export function putWall(db: Db, pool: Pools): void {
  // Taken away under a server that runs: the first wall stands, and the log says that it stands alone.
  pool.onConnect(client => void client.query(`set role ${APPLICATION_ROLE}`).catch(console.error))
  walls.set(db, { pool, of: new LastUsed(MOST_WORKSHOPS) })
}

export const isWalled = (db: Db): boolean => walls.has(db)

/** The database as one workshop sees it; itself where it has no wall, as within a transaction. */
export function inside(db: Db, workshop: string): Db {
  const wall = walls.get(db)
  if (!wall) return db
  const known = wall.of.get(workshop)
  if (known) return known
  const made = new Kysely<Database>({ dialect: new PostgresDialect({ pool: poolFor(wall.pool, workshop) }) })
  wall.of.set(workshop, made)
  return made
}
