import { hashPassword } from '#imports'
import { ownerSchema } from '~contract/account'
import { remember } from '../auth/session'
import { AlreadyOwned, createFirstWorkshop } from '../store/workshops'
import { openRoute, refuse } from '../route'

/** The first start: creates the workshop with its owner. Once there is a workshop this door is shut. */
export default openRoute({ body: ownerSchema }, async ({ event, db, body }) => {
  const owner = {
    name: body.name,
    email: body.email,
    passwordHash: await hashPassword(body.password),
    role: 'owner' as const,
  }
  const made = await createFirstWorkshop(db, body.workshop, body.units, owner).catch((error) => {
    throw error instanceof AlreadyOwned
      ? refuse(409, 'This workshop already has its owner. Sign in, or ask them to add you.')
      : error
  })
  await remember(event, made.personId)
  return { ok: true }
})
