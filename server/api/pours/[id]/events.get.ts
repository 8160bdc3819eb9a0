import { pourEventsAfter } from '../../../store/pours'
import { found, serve } from '../../../route'

export default serve('GET pours/:id/events', async ({ scope, params, query }) =>
  found(await pourEventsAfter(scope, params.id, query.after), 'There is no such pour in this workshop.'))
