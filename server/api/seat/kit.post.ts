import { seated } from '../../auth/seat'
import { Refused } from '../../refused'
import { serve } from '../../route'
import { beginKit, kitOf } from '../../store/classrooms'
import { seatAnswer } from '../../store/seats'
import { workshopTime } from '~contract/clock'

/** One’s own kit is begun; begun twice it is the same. */
export default serve('POST seat/kit', async ({ event, db }) => {
  const here = await seated(event, db), { seat, room, workshop, scope } = here
  const kit = kitOf(room)
  if (!kit || !seat.pour_id) throw new Refused('no-kit')
  const now = workshopTime(workshop.clock, Date.now())
  await beginKit(scope, kit.run, { number: seat.number, pour: seat.pour_id, colour: seat.colour }, now, `seat-${seat.number}`)
  return seatAnswer(here)
})
