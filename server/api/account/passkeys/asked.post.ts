import { askToMake } from '../../../auth/passkeys'
import { provePassword } from '../../../auth/prove'
import { serve } from '../../../route'

export default serve('POST account/passkeys/asked', async ({ event, db, person, body }) => {
  await provePassword(db, person, body.password)
  return askToMake(event, db, person)
})
