import { importSchema, type Imported } from '~contract/import'
import { importRows, RowRefused } from '../import'
import { refuse, route } from '../route'

/** Rows of somebody's own table: all of them, or none and why. */
export default route(
  'member',
  { body: importSchema },
  async ({ event, scope, person, body, now }): Promise<Imported> => {
    await importRows(scope, body, person.id, now, () => !event.node.res.closed).catch((error) => {
      throw error instanceof RowRefused ? refuse(422, error.sentence, `rows.${error.place}`) : error
    })
    return { rows: body.rows.length }
  },
)
