import { workshopTime } from '~contract/clock'
import type { WallAnswer } from '~contract/link'
import { heldLink } from '../../../auth/tickets'
import { liveJobs, livePours } from '../../../store/links'
import { within } from '../../../store/scope'
import { serve } from '../../../route'

/** What a wall display shows, to whoever has its link. */
export default serve('GET wall/:token', async ({ event, db, params }): Promise<WallAnswer> => {
  const workshop = await heldLink(event, db, params.token, 'wall')
  const now = workshopTime(workshop.clock, Date.now())
  const scope = within(db, workshop.id, workshop)
  return {
    workshop: workshop.name,
    units: workshop.units,
    clock: { now, rate: workshop.clock.rate },
    pours: await livePours(scope, now),
    jobs: await liveJobs(scope, now),
  }
})
