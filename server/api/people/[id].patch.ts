import { hashPassword } from '#imports'
import { z } from '~contract/zod'
import { personChangeSchema } from '~contract/account'
import { changePerson } from '../../store/workshops'
import { found, route } from '../../route'

export default route(
  'owner',
  { params: z.object({ id: z.uuid() }), body: personChangeSchema },
  async ({ scope, params, body }) => {
    const { password, ...change } = body
    const changed = await changePerson(scope, params.id, {
      ...change,
      ...(password && { passwordHash: await hashPassword(password) }),
    })
    found(changed, 'There is no such person in this workshop.')
    return { ok: true }
  },
)
