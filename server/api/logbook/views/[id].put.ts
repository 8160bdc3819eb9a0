import { MOST_VIEWS } from '~contract/logbook'
import { saveView } from '../../../store/logbook'
import { DONE, refuse, serve } from '../../../route'

export default serve('PUT logbook/views/:id', async ({ scope, params, body }) => {
  if (!await saveView(scope, { id: params.id, ...body })) throw refuse(
    409,
    `${MOST_VIEWS} views are enough. Take away one that nobody uses.`,
  )
  return DONE
})
