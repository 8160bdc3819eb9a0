import { provePassword } from '../../../auth/prove'
import { dropFactor } from '../../../auth/second-factor'
import { writeAudit } from '../../../store/audit'
import { DONE, serve } from '../../../route'

export default serve('POST account/second-factor/off', async ({ db, scope, person, body }) => {
  await provePassword(db, person, body.password)
  await dropFactor(db, person.accountId)
  await writeAudit(scope, { code: 'second-factor-off', who: person.name })
  return DONE
})
