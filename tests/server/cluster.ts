import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { TestProject } from 'vitest/node'
import { startCluster } from '../../bin/cluster.mjs'

declare module 'vitest' {
  interface ProvidedContext { databaseBase: string }
}

/** A throw-away PostgreSQL for the run, unless the caller already has one. */
export default async function setup(project: TestProject): Promise<() => void> {
  const given = process.env.TEST_DATABASE_BASE
  if (given) {
    project.provide('databaseBase', given)
    return () => {}
  }
  const cluster = await startCluster(join(mkdtempSync(join(tmpdir(), 'ripples-')), 'pg'), { throwaway: true })
  project.provide('databaseBase', cluster.url(''))
  return cluster.stop
}
