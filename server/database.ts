import type pg from 'pg'
import { useRuntimeConfig } from '#imports'
import { connect, migrateToLatest, type Db } from './db/open'

let opened: Promise<{ db: Db, pool: pg.Pool }> | undefined

/** The one database of this process, brought up to date before the first query. A failure is not remembered: the next request tries again. */
export function database(): Promise<{ db: Db, pool: pg.Pool }> {
  opened ??= (async () => {
    const { databaseUrl } = useRuntimeConfig()
    if (!databaseUrl) throw new Error('No database: set NUXT_DATABASE_URL, or start with bin/start.')
    const connection = connect(databaseUrl)
    try {
      await migrateToLatest(connection.db)
    }
    catch (error) {
      await connection.pool.end()
      throw error
    }
    return connection
  })().catch((error) => {
    opened = undefined
    throw error
  })
  return opened
}
