import { hashPassword } from '#imports'
import { remember } from '../auth/session'
import { createFirstWorkshop } from '../store/workshops'
import { DONE, serve } from '../route'

/** The first start: creates the workshop with its owner. Once there is a workshop this door is shut. */
export default serve('POST owner', async ({ event, db, body }) => {
  const owner = {
    name: body.name,
    email: body.email,
    passwordHash: await hashPassword(body.password),
    role: 'owner' as const,
  }
  const made = await createFirstWorkshop(db, body.workshop, body.units, owner)
  await remember(event, made.personId)
  return DONE
})
