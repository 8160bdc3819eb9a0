import { accountById, workshopsOf } from '../../store/accounts'
import { passkeysOf } from '../../store/passkeys'
import { sessionsOf } from '../../store/sessions'
import { serve } from '../../route'

export default serve('GET account', async ({ db, person }) => {
  const [account, sessions, workshops, passkeys] = await Promise.all([
    accountById(db, person.accountId),
    sessionsOf(db, person.accountId, person.sessionId),
    workshopsOf(db, person.accountId),
    passkeysOf(db, person.accountId),
  ])
  return {
    email: account.email,
    secondFactor: account.second_factor !== null,
    recoveryLeft: account.recovery_sha256.length,
    sessions,
    passkeys,
    workshops: workshops.map(({ id, name, role }) => ({ id, name, role, here: id === person.workshopId })),
  }
})
