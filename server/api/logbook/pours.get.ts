import { afterSchema, factListSchema, logbookQuerySchema } from '~shared/logbook'
import { findPours } from '../../db/logbook'
import { route } from '../../route'

export default route('viewer', { query: logbookQuerySchema.extend({ facts: factListSchema, after: afterSchema.optional() }) }, ({ scope, query: { after, ...query } }) => findPours(scope, query, after))
