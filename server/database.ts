import type pg from 'pg'
import { useRuntimeConfig } from '#imports'
import { connect, migrateToLatest, type Db } from './store/open'
import { bringUpToDate } from './store/recording'

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
    try {
      await migrateToLatest(connection.db)
      await bringUpToDate(
        connection.db,
        left =>
          console.info(
            left > 0 ? `Bringing the logbook up to date: ${left} pours left.` : 'The logbook is up to date.',
          ),
      )
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
