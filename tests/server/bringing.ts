import { randomUUID } from 'node:crypto'
import { expect } from 'vitest'
import type { ImportJob } from '../../contract/import'
import { isUnderWay } from '../../contract/import-state'
import { restoreArchive } from '../../server/archive/restore'
import { Lots } from '../../server/imports/lots'
import { beginImport, endImport } from '../../server/store/imports'
import type { Db } from '../../server/store/open'
import { within } from '../../server/store/scope'
import type { Product } from '../product'
import { ask } from './over-http'

/** An import of this workshop, begun as the server does. */
export async function begun(db: Db, workshop: string, kind: ImportJob['kind'] = 'archive'): Promise<Lots> {
  const id = randomUUID()
  await beginImport(within(db, workshop), { id, kind, name: '', by: randomUUID() })
  return new Lots(db, workshop, id)
}

/** Brings an archive in from beginning to end, in this thread. @throws what it is refused with */
export async function bring(db: Db, workshop: string, path: string): Promise<Lots['counts']> {
  const lots = await begun(db, workshop)
  try {
    await restoreArchive(lots, path)
    return lots.counts
  }
  finally {
    await endImport(lots.scope, lots.id, 'done', lots.counts)
  }
}

/** What the server says of an import when it has ended. */
export async function endOf(at: Product, cookie: string, id: string): Promise<ImportJob> {
  let job: ImportJob | undefined
  await expect.poll(async () => {
    const { body } = await ask(at, 'GET', 'imports', { cookie })
    job = (body as unknown as ImportJob[]).find(j => j.id === id)
    return job && !isUnderWay(job.state)
  }).toBe(true)
  return job!
}
