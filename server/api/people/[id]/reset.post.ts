import { workshopsOf } from '../../../store/accounts'
import { writeAudit } from '../../../store/audit'
import { accountOf } from '../../../store/people'
import { makeTicket } from '../../../store/tickets'
import { Refused } from '../../../refused'
import { found, serve } from '../../../route'

/** An owner helps somebody of their own; whoever belongs elsewhere too is not theirs to open. */
export default serve('POST people/:id/reset', async ({ db, scope, person, params }) => {
  const { accountId, name } = found(await accountOf(scope, params.id), 'There is no such person in this workshop.')
  if ((await workshopsOf(db, accountId)).some(w => w.id !== scope.workshopId)) throw new Refused('belongs-elsewhere')
  await writeAudit(scope, { code: 'reset-made', who: person.name, about: name })
  return makeTicket(db, { kind: 'reset', workshopId: scope.workshopId, accountId })
})
