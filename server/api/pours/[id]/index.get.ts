import { pourWithEvents } from '../../../store/pours'
import { found, serve } from '../../../route'

export default serve('GET pours/:id', async ({ scope, params }) => found(await pourWithEvents(scope, params.id), 'There is no such pour in this workshop.'))
