import { randomUUID } from 'node:crypto'
import { setToWork } from '../imports/running'
import { beginImport } from '../store/imports'
import { serve } from '../route'

/** Rows of somebody's own table: all of them are looked through before one is written. */
export default serve('POST import', async ({ db, scope, person, body: table, now }) => {
  const id = randomUUID()
  await beginImport(scope, { id, kind: table.kind, name: table.file, by: person.id })
  setToWork(db, { workshop: person.workshopId, place: person, job: id, work: { what: 'rows', table, actor: person.id, now } })
  return { id }
})
