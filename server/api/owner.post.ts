import { hashPassword } from '#imports'
import { ownerSchema } from '~contract/account'
import { remember } from '../auth/session'
import { createFirstWorkshop } from '../store/workshops'
import { openRoute } from '../route'

/** The first start: creates the workshop with its owner. Once there is a workshop this door is shut. */
export default openRoute({ body: ownerSchema }, async ({ event, db, body }) => {
  const owner = {
    name: body.name,
    email: body.email,
    passwordHash: await hashPassword(body.password),
    role: 'owner' as const,
  }
  const made = await createFirstWorkshop(db, body.workshop, body.units, owner)
  await remember(event, made.personId)
  return { ok: true }
})
