import { openClass } from '../../store/classrooms'
import { serve } from '../../route'

export default serve('POST classes', async ({ scope, db, person, body }) => ({
  id: await openClass(scope, db, person.id, body.name, body.hours),
}))
