import { factListSchema } from '~contract/logbook'
import { z } from '~contract/zod'
import { trials } from '../../store/logbook'
import { route } from '../../route'

export default route(
  'viewer',
  { query: z.object({ facts: factListSchema }) },
  ({ scope, query }) => trials(scope, query.facts),
)
