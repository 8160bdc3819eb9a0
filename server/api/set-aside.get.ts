import { setAside } from '../store/set-aside'
import { serve } from '../route'

/** What this version cannot read: it is kept, and left out of its list. */
export default serve('GET set-aside', ({ scope }) => setAside(scope))
