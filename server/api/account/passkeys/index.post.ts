import { takeOn } from '../../../auth/passkeys'
import { deviceOf } from '../../../auth/place'
import { writeAudit } from '../../../store/audit'
import { DONE, serve } from '../../../route'

export default serve('POST account/passkeys', async ({ event, db, scope, person, body }) => {
  const name = body.name || deviceOf(event)
  await takeOn(event, db, person, { ...body, name })
  await writeAudit(scope, { code: 'passkey-added', who: person.name, about: name })
  return DONE
})
