import { seated } from '../../auth/seat'
import { serve } from '../../route'
import { noteSeat, seatAnswer } from '../../store/seats'

export default serve('GET seat', async ({ event, db }) => {
  const here = await seated(event, db)
  await noteSeat(here)
  return seatAnswer(here)
})
