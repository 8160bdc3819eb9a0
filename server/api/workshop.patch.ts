import { workshopChangeSchema } from '~contract/account'
import { changeWorkshop } from '../store/workshops'
import { route } from '../route'

export default route('owner', { body: workshopChangeSchema }, async ({ db, person, body }) => {
  await changeWorkshop(db, person.workshopId, body)
  return { ok: true }
})
