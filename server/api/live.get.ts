import { route } from '../route'
import { streamOf } from '../live/stream'

/** The stream of what changed, ids only. */
export default route(
  'viewer',
  {},
  ({ event, person }) => streamOf(event, person.workshopId, person.eventSeq, message => message),
)
