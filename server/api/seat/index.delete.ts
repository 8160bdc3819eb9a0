import { leaveSeat } from '../../auth/seat'
import { DONE, serve } from '../../route'

/** The seat stays with what it told; this browser opens it no more. */
export default serve('DELETE seat', ({ event }) => {
  leaveSeat(event)
  return DONE
})
