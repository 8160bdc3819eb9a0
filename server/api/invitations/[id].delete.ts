import { writeAudit } from '../../store/audit'
import { dropInvitation } from '../../store/tickets'
import { DONE, refuse, serve } from '../../route'

export default serve('DELETE invitations/:id', async ({ db, scope, person, params }) => {
  const name = await dropInvitation(db, scope.workshopId, params.id)
  if (name === undefined) throw refuse(404, 'This invitation was used or taken back already.')
  await writeAudit(scope, { code: 'invitation-taken-back', who: person.name, about: name })
  return DONE
})
