import { serve } from '../route'
import { paceOf } from '../store/pace'

/** The pace of who asks, as their own pours have it. */
export default serve('GET pace', ({ scope, person }) => paceOf(scope, person.id))
