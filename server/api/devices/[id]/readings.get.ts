import { whoIs } from '../../../auth/session'
import { readingsOf } from '../../../live/readings'
import { hasDevice } from '../../../store/devices'
import { found, serve } from '../../../route'

export default serve('GET devices/:id/readings', async ({ event, db, scope, person, params }) => {
  found(await hasDevice(scope, params.id), 'This device was taken out of the workshop.')
  return readingsOf(event, scope.workshopId, params.id, {
    session: person.sessionId,
    stillThere: async () => (await whoIs(event, db))?.workshopId === scope.workshopId,
  })
})
