import { writeAudit } from '../../../store/audit'
import { dropPasskey } from '../../../store/passkeys'
import { DONE, refuse, serve } from '../../../route'

export default serve('DELETE account/passkeys/:id', async ({ db, scope, person, params }) => {
  const name = await dropPasskey(db, person.accountId, params.id)
  if (name === undefined) throw refuse(404, 'You have no such passkey.')
  await writeAudit(scope, { code: 'passkey-removed', who: person.name, about: name })
  return DONE
})
