import { workshopChangeSchema } from '~shared/account'
import { changeWorkshop } from '../db/workshops'
import { route } from '../route'

export default route('owner', { body: workshopChangeSchema }, async ({ db, person, body }) => {
  await changeWorkshop(db, person.workshopId, body)
  return { ok: true }
})
