import { hashPassword } from '#imports'
import { changePerson } from '../../store/workshops'
import { DONE, found, serve } from '../../route'

export default serve('PATCH people/:id', async ({ scope, params, body }) => {
  const { password, ...change } = body
  const changed = await changePerson(scope, params.id, {
    ...change,
    ...(password && { passwordHash: await hashPassword(password) }),
  })
  found(changed, 'There is no such person in this workshop.')
  return DONE
})
