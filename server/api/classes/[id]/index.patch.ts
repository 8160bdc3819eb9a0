import { ledClass } from '../../../lead'
import { DONE, serve } from '../../../route'
import { changeClass } from '../../../store/classrooms'

export default serve('PATCH classes/:id', async ({ scope, db, person, params, body }) => {
  await ledClass(scope, params.id, person)
  await changeClass(scope, db, params.id, body, person.id)
  return DONE
})
