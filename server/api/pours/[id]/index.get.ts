import { z } from '~shared/zod'
import { pourWithEvents } from '../../../db/pours'
import { found, route } from '../../../route'

export default route('viewer', { params: z.object({ id: z.uuid() }) }, async ({ scope, params }) => found(await pourWithEvents(scope, params.id), 'There is no such pour in this workshop.'))
