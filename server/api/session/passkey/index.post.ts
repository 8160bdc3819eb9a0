import { giveBack, takeGuesses } from '../../../auth/guessing'
import { enterHere } from '../../../auth/enter'
import { accountOfPasskey } from '../../../auth/passkeys'
import { placeOf } from '../../../auth/place'
import { DONE, serve } from '../../../route'

/** Signs in with a passkey: the device asked for a finger, a face or its own code, so no second thing is. */
export default serve('POST session/passkey', async ({ event, db, body }) => {
  const guesses = [{ kind: 'place', about: placeOf(event) }] as const
  await takeGuesses(db, guesses)
  const accountId = await accountOfPasskey(event, db, body)
  await giveBack(db, guesses)
  await enterHere(event, db, accountId)
  return DONE
})
