import { factListSchema } from '~shared/logbook'
import { z } from '~shared/zod'
import { trials } from '../../db/logbook'
import { route } from '../../route'

export default route('viewer', { query: z.object({ facts: factListSchema }) }, ({ scope, query }) => trials(scope, query.facts))
