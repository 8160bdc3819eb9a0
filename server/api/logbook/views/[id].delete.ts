import { z } from '~contract/zod'
import { dropView } from '../../../store/logbook'
import { found, route } from '../../../route'

export default route('member', { params: z.object({ id: z.uuid() }) }, async ({ scope, params }) => {
  found(await dropView(scope, params.id), 'This view was taken away already.')
  return { ok: true }
})
