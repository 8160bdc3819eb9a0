import { announceReading } from '../../store/announce'
import { writeAudit } from '../../store/audit'
import { dropDevice } from '../../store/devices'
import { DONE, found, serve } from '../../route'

export default serve('DELETE devices/:id', async ({ db, scope, person, params }) => {
  const name = found(await dropDevice(scope, params.id), 'This device was taken out already.')
  await announceReading(db, { workshop: scope.workshopId, device: params.id, line: null })
  await writeAudit(scope, { code: 'device-taken-back', who: person.name, about: name })
  return DONE
})
