import { endSessions } from '../../../store/sessions'
import { DONE, found, serve } from '../../../route'

export default serve('DELETE account/sessions/:id', async ({ db, person, params }) => {
  found(await endSessions(db, { id: params.id, accountId: person.accountId }), 'That session has ended already.')
  return DONE
})
