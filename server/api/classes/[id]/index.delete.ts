import { ledClass } from '../../../lead'
import { DONE, serve } from '../../../route'
import { dropClass } from '../../../store/classrooms'

export default serve('DELETE classes/:id', async ({ scope, db, person, params }) => {
  await ledClass(scope, params.id, person)
  await dropClass(scope, db, params.id)
  return DONE
})
