import type { Imported } from '~contract/import'
import { importRows } from '../import'
import { serve } from '../route'

/** Rows of somebody's own table: all of them, or none and why. */
export default serve('POST import', async ({ event, scope, person, body, now }): Promise<Imported> => {
  await importRows(scope, body, person.id, now, () => !event.node.res.closed)
  return { rows: body.rows.length }
})
