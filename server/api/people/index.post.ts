import { hashPassword } from '#imports'
import { addPerson } from '../../store/workshops'
import { serve } from '../../route'

export default serve('POST people', async ({ scope, body }) => {
  const { password, ...person } = body
  return addPerson(scope, { ...person, passwordHash: await hashPassword(password) })
})
