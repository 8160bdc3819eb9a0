import { setAside } from '../store/set-aside'
import { route } from '../route'

/** What this version cannot read: it is kept, and left out of its list. */
export default route('viewer', {}, ({ scope }) => setAside(scope))
