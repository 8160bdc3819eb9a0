import { forgetHere, whoIs } from '../auth/session'
import { endSessions } from '../store/sessions'
import { DONE, serve } from '../route'

export default serve('DELETE session', async ({ event, db }) => {
  const person = await whoIs(event, db)
  if (person) await endSessions(db, { id: person.sessionId })
  forgetHere(event)
  return DONE
})
