import { people } from '../../store/workshops'
import { serve } from '../../route'

export default serve('GET people', ({ scope }) => people(scope))
