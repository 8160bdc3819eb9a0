import type { H3Event } from 'h3'
import { enterHere } from '../auth/enter'
import { giveBack, takeGuesses, type Guess } from '../auth/guessing'
import { isPassword } from '../auth/passwords'
import { placeOf } from '../auth/place'
import { opens } from '../auth/second-factor'
import { deviceSecret } from '../auth/session'
import { accountByEmail, workshopsOf } from '../store/accounts'
import { writeAudit } from '../store/audit'
import type { Db } from '../store/open'
import { within } from '../store/scope'
import { isKnownDevice } from '../store/sessions'
import { DONE, refuse, serve } from '../route'

type Account = Awaited<ReturnType<typeof accountByEmail>>

/** What this try counts against: a browser that knows the account is weighed by itself alone. */
async function guessesOf(event: H3Event, db: Db, email: string, account: Account): Promise<Guess[]> {
  const device = deviceSecret(event), place = placeOf(event)
  if (account && await isKnownDevice(db, device, account.id)) return [{ kind: 'device', about: `${device} ${email}` }]
  return [{ kind: 'place', about: place }, { kind: 'account', about: `${place} ${email}` }]
}

/** Owners read where it came from. */
async function tellOfGuessing(event: H3Event, db: Db, accountId: string): Promise<void> {
  for (const w of await workshopsOf(db, accountId))
    await writeAudit(within(db, w.id), { code: 'guessing', about: w.personName, place: placeOf(event) })
}

/** Signs in. A wrong address takes as long as a wrong password and reads the same. */
export default serve('POST session', async ({ event, db, body }) => {
  const account = await accountByEmail(db, body.email), guesses = await guessesOf(event, db, body.email, account)
  const tooMany = await takeGuesses(db, guesses), stranger = guesses[0]!.kind !== 'device'
  if (!await isPassword(account?.password_hash, body.password, stranger) || !account) {
    if (tooMany && account) await tellOfGuessing(event, db, account.id)
    throw refuse(401, 'That address and password do not belong together here.', 'password')
  }
  if (account.second_factor && !body.code) {
    await giveBack(db, guesses)
    throw refuse(401, 'Type the six digits that your phone shows for this account, or a recovery code.', 'code')
  }
  if (!await opens(db, account, body.code ?? ''))
    throw refuse(401, 'That code is not right, or was used already. Wait for the next one and type that.', 'code')
  await giveBack(db, guesses)
  await enterHere(event, db, account.id)
  return DONE
})
