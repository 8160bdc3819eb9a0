import { z } from '~contract/zod'
import { LIBRARY, LIBRARY_KINDS } from '~contract/library'
import { announce } from '../../../store/announce'
import { saveItem } from '../../../store/library'
import { refuse, route } from '../../../route'

/** Saves a mould, bucket or bag; revision 0 makes a new one. */
const shape = {
  params: z.object({ kind: z.enum(LIBRARY_KINDS), id: z.uuid() }),
  body: z.object({ body: z.unknown(), revision: z.int().min(0) }),
}

export default route('member', shape, async ({ scope, db, params, body }) => {
  const item = LIBRARY[params.kind].safeParse(body.body)
  if (!item.success) {
    const issue = item.error.issues[0]!
    throw refuse(400, issue.message, issue.path.join('.'))
  }
  const saved = await saveItem(scope, params.kind, params.id, item.data as never, body.revision)
  await announce(db, scope.workshopId, { what: 'library' })
  return saved
})
