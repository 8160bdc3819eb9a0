import { giveBack, takeGuesses } from '../../../auth/guessing'
import { confirm } from '../../../auth/second-factor'
import { accountById } from '../../../store/accounts'
import { writeAudit } from '../../../store/audit'
import { refuse, serve } from '../../../route'

export default serve('PUT account/second-factor', async ({ db, scope, person, body }) => {
  const guesses = [{ kind: 'device', about: `session ${person.sessionId}` }] as const
  await takeGuesses(db, guesses)
  const recovery = await confirm(db, await accountById(db, person.accountId), body.code)
  if (!recovery) throw refuse(403, 'That code is not right, or its half minute is over. Type the one it shows now.', 'code')
  await giveBack(db, guesses)
  await writeAudit(scope, { code: 'second-factor-on', who: person.name })
  return { recovery }
})
