import { workshopsOf } from '../../store/accounts'
import { moveSession } from '../../store/sessions'
import { DONE, found, serve } from '../../route'

export default serve('PUT session/workshop', async ({ db, person, body }) => {
  const { accountId, sessionId } = person
  const there = found(
    (await workshopsOf(db, accountId)).find(w => w.id === body.workshop),
    'You do not belong to that workshop, or not any more.',
  )
  await moveSession(db, sessionId, { accountId, workshopId: there.id, personId: there.personId })
  return DONE
})
