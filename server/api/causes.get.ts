import { confirmedCauses } from '../store/pours'
import { serve } from '../route'

/** Causes of defects that this workshop has confirmed. */
export default serve('GET causes', ({ scope }) => confirmedCauses(scope))
