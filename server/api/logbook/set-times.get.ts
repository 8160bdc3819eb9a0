import { z } from '~shared/zod'
import { setTimes } from '../../db/logbook'
import { route } from '../../route'

export default route('viewer', { query: z.object({ bag: z.uuid().optional() }) }, ({ scope, query }) => setTimes(scope, query.bag))
