import { whoIs } from '../auth/session'
import { streamOf } from '../live/stream'
import { serve } from '../route'

/** The stream of what changed, ids only. */
export default serve('GET live', ({ event, db, person }) => streamOf(event, { workshop: person.workshopId, home: person.home }, message => message, {
  session: person.sessionId,
  stillThere: async () => (await whoIs(event, db))?.workshopId === person.workshopId,
}))
