import { workshopTime } from '~contract/clock'
import type { WallAnswer } from '~contract/link'
import { livePours, workshopOfLink } from '../../../store/links'
import { within } from '../../../store/scope'
import { found, serve } from '../../../route'

/** What a wall display shows, to whoever has its link. */
export default serve('GET wall/:token', async ({ db, params }): Promise<WallAnswer> => {
  const workshop = found(await workshopOfLink(db, params.token, 'wall'), 'This link was taken back. Ask for a new one.')
  const now = workshopTime(workshop.clock, Date.now())
  return {
    workshop: workshop.name,
    units: workshop.units,
    clock: { now, rate: workshop.clock.rate },
    pours: await livePours(within(db, workshop.id), now),
  }
})
