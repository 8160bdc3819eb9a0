import { z } from '~contract/zod'
import { pourEventsAfter } from '../../../store/pours'
import { found, route } from '../../../route'

const shape = {
  params: z.object({ id: z.uuid() }),
  query: z.object({ after: z.coerce.number().int().min(0).default(0) }),
}

export default route(
  'viewer',
  shape,
  async ({ scope, params, query }) =>
    found(await pourEventsAfter(scope, params.id, query.after), 'There is no such pour in this workshop.'),
)
