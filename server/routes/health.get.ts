import { sql } from 'kysely'
import { defineEventHandler, setResponseHeader, setResponseStatus } from 'h3'
import { useRuntimeConfig } from '#imports'
import { database, databaseTrouble } from '../database'

/** Longer than this a database that answers is not well, ms. */
const PATIENCE_MS = 2000
const late = () => new Promise<never>((_, reject) =>
  void setTimeout(reject, PATIENCE_MS, new Error('timeout exceeded when trying to connect')).unref())

/** For machines: whether this server can do its work now. Says nothing that is anybody’s secret. */
export default defineEventHandler(async (event) => {
  setResponseHeader(event, 'cache-control', 'no-store')
  const { buildId: build } = useRuntimeConfig().app
  try {
    await Promise.race([database().then(({ db }) => sql`select 1`.execute(db)), late()])
    return { status: 'ok', build }
  }
  catch (error) {
    setResponseStatus(event, 503)
    return { status: databaseTrouble(error) ?? 'trouble', build }
  }
})
