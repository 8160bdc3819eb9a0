import type { SessionFacts } from '~contract/account'
import { REAL_TIME, workshopTime } from '~contract/clock'
import { anyWorkshop } from '../store/workshops'
import { demoMode, whoIs, serve } from '../route'

/** Who is here, what their workshop is called and what time it is there. */
export default serve('GET session', async ({ event, db }): Promise<SessionFacts> => {
  const person = await whoIs(event)
  const demo = demoMode()
  if (!person)
    return { clock: { now: workshopTime(REAL_TIME, Date.now()), rate: 1 }, demo, needsOwner: !await anyWorkshop(db) }
  return {
    person: { id: person.id, name: person.name, email: person.email, role: person.role },
    workshop: { id: person.workshopId, name: person.workshopName, units: person.units },
    clock: { now: workshopTime(person.clock, Date.now()), rate: person.clock.rate },
    demo: demo && person.demo,
    needsOwner: false,
  }
})
