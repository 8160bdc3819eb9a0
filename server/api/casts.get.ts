import { castRows } from '../store/pours'
import { serve } from '../route'

const WEEK = 7 * 86_400_000

export default serve('GET casts', ({ scope, query, now }) => castRows(scope, query.since ?? now - WEEK))
