import { recordEvents } from '../../../store/recording'
import { found, refuse, serve } from '../../../route'

/** Takes a device's events. Sending the same ones again is harmless; what is answered is committed. */
export default serve('POST pours/:id/events', async ({ scope, person, params, body, now }) => {
  if (body.person !== undefined && body.person !== person.id) throw refuse(
    401,
    'These entries are someone else’s. They wait in this browser until that person signs in again.',
  )
  const answer = await recordEvents(scope, params.id, body.events, person.id, body.sentAt - now, body.after)
  return found(answer, 'There is no such pour in this workshop.')
})
