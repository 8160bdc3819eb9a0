import type { ImportJob } from '~contract/import'
import type { Here } from '../auth/session'
import { found, refuse } from '../route'
import { importOf } from '../store/imports'
import type { Scope } from '../store/scope'

/** An import that this person began, or any for an owner. @throws 404, 403 */
export async function ownImport(scope: Scope, id: string, person: Here): Promise<ImportJob> {
  const job = found(await importOf(scope, id), 'There is no such file being brought in.')
  if (job.by !== person.id && person.role !== 'owner')
    throw refuse(403, 'Only whoever brought this in can do that, or an owner of the workshop.')
  return job
}
