import { z } from '~contract/zod'
import { pourWithEvents } from '../../../store/pours'
import { found, route } from '../../../route'

export default route(
  'viewer',
  { params: z.object({ id: z.uuid() }) },
  async ({ scope, params }) => found(await pourWithEvents(scope, params.id), 'There is no such pour in this workshop.'),
)
