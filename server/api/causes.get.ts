import { confirmedCauses } from '../store/pours'
import { route } from '../route'

/** Causes of defects that this workshop has confirmed. */
export default route('viewer', {}, ({ scope }) => confirmedCauses(scope))
