import { takeEntries } from '../../../store/entries'
import { found, refuse, serve } from '../../../route'

/** Takes a device's entries, each for itself. The same ones again are harmless; what is answered is committed. */
export default serve('POST pours/:id/events', async ({ scope, person, params, body, now }) => {
  if (body.person !== undefined && body.person !== person.id) throw refuse(
    401,
    'These entries are someone else’s. They wait in this browser until that person signs in again.',
  )
  const answer = await takeEntries(scope, params.id, body.events, {
    actor: person.id,
    skewMs: body.sentAt - now,
    after: body.after,
  })
  return found(answer, 'There is no such pour in this workshop.')
})
