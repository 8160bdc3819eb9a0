import { auditRows } from '../store/audit'
import { serve } from '../route'

export default serve('GET audit', ({ scope }) => auditRows(scope))
