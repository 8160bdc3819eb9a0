import { writeAudit } from '../../../store/audit'
import { endSessions } from '../../../store/sessions'
import { DONE, serve } from '../../../route'

export default serve('DELETE account/sessions', async ({ db, scope, person }) => {
  await endSessions(db, { accountId: person.accountId, except: person.sessionId })
  await writeAudit(scope, { code: 'sessions-ended', who: person.name })
  return DONE
})
