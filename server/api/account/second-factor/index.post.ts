import { provePassword } from '../../../auth/prove'
import { offer } from '../../../auth/second-factor'
import { serve } from '../../../route'

export default serve('POST account/second-factor', async ({ db, person, body }) =>
  offer(db, await provePassword(db, person, body.password)))
