import { timingSafeEqual } from 'node:crypto'
import type { H3Event } from 'h3'
import { useRuntimeConfig } from '#imports'
import { trustOf } from '../auth/door'
import { takeGuesses } from '../auth/guessing'
import { hashPassword, refuseEasy } from '../auth/passwords'
import { placeOf } from '../auth/place'
import { remember } from '../auth/session'
import { hashOf } from '../store/sessions'
import { anyWorkshop, createFirstWorkshop } from '../store/workshops'
import { Refused } from '../refused'
import { DONE, refuse, serve } from '../route'

/** Whoever comes over the network must have seen the terminal. */
function mayOwn(event: H3Event, typed: string): boolean {
  if (trustOf(event) === 'own') return true
  const code = String(useRuntimeConfig().ownerCode), plain = typed.toUpperCase().replace(/[^A-Z0-9]/g, '')
  return code !== '' && timingSafeEqual(Buffer.from(hashOf(code)), Buffer.from(hashOf(plain)))
}

/** The first start: creates the workshop with its owner. Once there is a workshop this door is shut. */
export default serve('POST owner', async ({ event, db, body }) => {
  if (await anyWorkshop(db)) throw new Refused('owned')
  await takeGuesses(db, [{ kind: 'owner', about: placeOf(event) }])
  if (!mayOwn(event, body.code ?? ''))
    throw refuse(403, 'That is not the code. It stands in the window where Nine Ripples was started.', 'code')
  await refuseEasy(body.password, [body.name, body.email, body.workshop])
  const owner = { name: body.name, email: body.email, passwordHash: await hashPassword(body.password, true) }
  await remember(event, db, await createFirstWorkshop(db, body.workshop, body.units, owner))
  return DONE
})
