import { ownImport } from '../../../imports/own'
import { askToEnd } from '../../../store/imports'
import { DONE, serve } from '../../../route'

export default serve('POST imports/:id/end', async ({ scope, params, person }) => {
  await ownImport(scope, params.id, person)
  await askToEnd(scope, params.id)
  return DONE
})
