import { z } from '~contract/zod'
import { MOST_VIEWS, viewSchema } from '~contract/logbook'
import { saveView } from '../../../store/logbook'
import { refuse, route } from '../../../route'

export default route(
  'member',
  { params: z.object({ id: z.uuid() }), body: viewSchema },
  async ({ scope, params, body }) => {
    if (!await saveView(scope, { id: params.id, ...body })) throw refuse(
      409,
      `${MOST_VIEWS} views are enough. Take away one that nobody uses.`,
    )
    return { ok: true }
  },
)
