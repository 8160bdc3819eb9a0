import { serve } from '../route'
import { streamOf } from '../live/stream'

/** The stream of what changed, ids only. */
export default serve('GET live', ({ event, person }) => streamOf(event, person.workshopId, message => message))
