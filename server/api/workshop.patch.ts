import { changeWorkshop } from '../store/workshops'
import { DONE, serve } from '../route'

export default serve('PATCH workshop', async ({ db, person, body }) => {
  await changeWorkshop(db, person.workshopId, body)
  return DONE
})
