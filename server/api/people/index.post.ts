import { hashPassword } from '#imports'
import { personSchema } from '~contract/account'
import { addPerson, EmailTaken } from '../../store/workshops'
import { refuse, route } from '../../route'

export default route('owner', { body: personSchema }, async ({ scope, body }) => {
  const { password, ...person } = body
  return addPerson(scope, { ...person, passwordHash: await hashPassword(password) }).catch((error) => {
    throw error instanceof EmailTaken ? refuse(409, 'Someone already signs in with this address.', 'email') : error
  })
})
