import { writeAudit } from '../../store/audit'
import { makeDevice } from '../../store/devices'
import { serve } from '../../route'

export default serve('POST devices', async ({ scope, person, body }) => {
  const made = await makeDevice(scope, body.kind, body.name)
  await writeAudit(scope, { code: 'device-made', who: person.name, about: body.name })
  return made
})
