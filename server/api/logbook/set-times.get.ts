import { z } from '~contract/zod'
import { setTimes } from '../../store/logbook'
import { route } from '../../route'

export default route(
  'viewer',
  { query: z.object({ bag: z.uuid().optional() }) },
  ({ scope, query }) => setTimes(scope, query.bag),
)
