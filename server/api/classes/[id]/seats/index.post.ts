import { ledClass } from '../../../../lead'
import { DONE, serve } from '../../../../route'
import { addSeats } from '../../../../store/classrooms'

export default serve('POST classes/:id/seats', async ({ scope, db, person, params, body }) => {
  await ledClass(scope, params.id, person)
  await addSeats(scope, db, params.id, body.names.map(name => ({ name })))
  return DONE
})
