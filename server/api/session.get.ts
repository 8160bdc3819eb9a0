import type { SessionFacts } from '~contract/account'
import { REAL_TIME, workshopTime } from '~contract/clock'
import { trustOf } from '../auth/door'
import { passkeyHost } from '../auth/passkeys'
import { whoIs } from '../auth/session'
import { anyPasskey } from '../store/passkeys'
import { anyWorkshop } from '../store/workshops'
import { demoMode, manyMode, serve } from '../route'

/** Who is here, what their workshop is called and what time it is there. */
export default serve('GET session', async ({ event, db }): Promise<SessionFacts> => {
  const person = await whoIs(event, db), shared = trustOf(event) !== 'own'
  const demo = demoMode() && !shared, here = { needsCode: shared, many: manyMode() }
  if (!person) {
    const clock = { now: workshopTime(REAL_TIME, Date.now()), rate: 1 }
    const host = passkeyHost(event), passkeys = host !== undefined && await anyPasskey(db, host)
    return { clock, demo, needsOwner: !await anyWorkshop(db), passkeys, ...here }
  }
  return {
    person: { id: person.id, name: person.name, email: person.email, role: person.role },
    workshop: { id: person.workshopId, name: person.workshopName, units: person.units },
    clock: { now: workshopTime(person.clock, Date.now()), rate: person.clock.rate },
    demo: demoMode() && person.demo,
    needsOwner: false,
    ...here,
  }
})
