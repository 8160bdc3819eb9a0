import { hashPassword, refuseEasy } from '../../auth/passwords'
import { provePassword } from '../../auth/prove'
import { knowOnlyThis } from '../../auth/session'
import { setPassword } from '../../store/accounts'
import { writeAudit } from '../../store/audit'
import { endSessions } from '../../store/sessions'
import { DONE, serve } from '../../route'

/** Another password: whoever knew the old one is out, on every device but this. */
export default serve('PUT account/password', async ({ event, db, scope, person, body }) => {
  await provePassword(db, person, body.old, 'old')
  await refuseEasy(body.password, [person.name, person.email, person.workshopName])
  const hash = await hashPassword(body.password)
  await db.transaction().execute(async (trx) => {
    await setPassword(trx, person.accountId, hash)
    await endSessions(trx, { accountId: person.accountId, except: person.sessionId })
  })
  await knowOnlyThis(event, db, person.accountId)
  await writeAudit(scope, { code: 'password', who: person.name })
  return DONE
})
