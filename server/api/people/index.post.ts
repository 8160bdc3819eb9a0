import { hashPassword } from '#imports'
import { personSchema } from '~contract/account'
import { addPerson } from '../../store/workshops'
import { route } from '../../route'

export default route('owner', { body: personSchema }, async ({ scope, body }) => {
  const { password, ...person } = body
  return addPerson(scope, { ...person, passwordHash: await hashPassword(password) })
})
