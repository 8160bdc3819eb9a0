import { afterSchema, factListSchema, logbookQuerySchema } from '~contract/logbook'
import { findPours } from '../../store/logbook'
import { route } from '../../route'

export default route('viewer', {
  query: logbookQuerySchema.extend({ facts: factListSchema, after: afterSchema.optional() }),
}, ({ scope, query: { after, ...query } }) => findPours(scope, query, after))
