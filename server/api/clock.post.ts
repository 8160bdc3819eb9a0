import { changedClock, workshopTime } from '~contract/clock'
import { changeWorkshop } from '../store/workshops'
import { demoMode, refuse, serve } from '../route'

/** Runs the demo's clock faster, or jumps it ahead. A real workshop's clock cannot be touched. */
export default serve('POST clock', async ({ db, person, body }) => {
  if (!demoMode() || !person.demo) throw refuse(404, 'There is nothing at this address.')
  const clock = changedClock(person.clock, body, Date.now())
  await changeWorkshop(db, person.workshopId, { clock })
  return { now: workshopTime(clock, Date.now()), rate: clock.rate }
})
