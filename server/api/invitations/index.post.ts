import { writeAudit } from '../../store/audit'
import { makeTicket } from '../../store/tickets'
import { Refused } from '../../refused'
import { manyMode, serve } from '../../route'

export default serve('POST invitations', async ({ db, scope, person, body }) => {
  if (body.kind === 'open' && !manyMode()) throw new Refused('one-workshop')
  const made = await makeTicket(db, { ...body, workshopId: scope.workshopId })
  await writeAudit(scope, { code: 'invited', who: person.name, about: body.name })
  return made
})
