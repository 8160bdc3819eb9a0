import { announce } from '../../store/announce'
import { writeAudit } from '../../store/audit'
import { dropLink } from '../../store/links'
import { DONE, found, serve } from '../../route'

export default serve('DELETE links/:id', async ({ scope, db, person, params }) => {
  const name = found(await dropLink(scope, params.id), 'This link was taken back already.')
  await writeAudit(scope, { code: 'link-taken-back', who: person.name, about: name })
  // Displays that stand open ask again, and find that they may not any more.
  await announce(db, scope.workshopId, { what: 'people' })
  return DONE
})
