import { z } from '~contract/zod'
import { castRows } from '../store/pours'
import { route } from '../route'

const WEEK = 7 * 86_400_000

export default route(
  'viewer',
  { query: z.object({ since: z.coerce.number().optional() }) },
  ({ scope, query, now }) => castRows(scope, query.since ?? now - WEEK),
)
