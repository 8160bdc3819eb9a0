import { LIBRARY } from '~contract/library'
import { announce } from '../../../store/announce'
import { saveItem } from '../../../store/library'
import { refuse, serve } from '../../../route'

export default serve('PUT library/:kind/:id', async ({ scope, db, params, body }) => {
  const item = LIBRARY[params.kind].safeParse(body.body)
  if (!item.success) {
    const issue = item.error.issues[0]!
    throw refuse(400, issue.message, issue.path.join('.'))
  }
  const saved = await saveItem(scope, params.kind, params.id, item.data as never, body.revision)
  await announce(db, scope.workshopId, { what: 'library' })
  return saved
})
