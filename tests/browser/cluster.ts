import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { startCluster } from '../../bin/cluster.mjs'

/** A throw-away PostgreSQL for the run, unless the caller already has one. */
export default async function setup(): Promise<() => void> {
  if (process.env.TEST_DATABASE_BASE) return () => {}
  const cluster = await startCluster(join(mkdtempSync(join(tmpdir(), 'ripples-')), 'pg'), { throwaway: true })
  process.env.TEST_DATABASE_BASE = cluster.url('')
  return cluster.stop
}
