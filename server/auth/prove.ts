import { giveBack, takeGuesses } from './guessing'
import { isPassword } from './passwords'
import type { Here } from './session'
import { accountById } from '../store/accounts'
import type { Db } from '../store/open'
import { refuse } from '../route'

/** Whoever finds a browser signed in does not know the password. @throws a 403 at this field when it is not right */
export async function provePassword(db: Db, person: Here, password: string, field = 'password') {
  const guesses = [{ kind: 'device', about: `session ${person.sessionId}` }] as const
  await takeGuesses(db, guesses)
  const account = await accountById(db, person.accountId)
  if (!await isPassword(account.password_hash, password, false)) throw refuse(403, 'That is not your password.', field)
  await giveBack(db, guesses)
  return account
}
