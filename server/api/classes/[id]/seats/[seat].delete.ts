import { ledClass } from '../../../../lead'
import { DONE, found, serve } from '../../../../route'
import { sendOut } from '../../../../store/classrooms'

export default serve('DELETE classes/:id/seats/:seat', async ({ scope, db, person, params }) => {
  await ledClass(scope, params.id, person)
  found(await sendOut(scope, db, params.id, params.seat), 'There is no such seat in this class.')
  return DONE
})
