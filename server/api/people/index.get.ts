import { people } from '../../store/people'
import { serve } from '../../route'

export default serve('GET people', ({ scope, person }) => people(scope, person.role !== 'viewer'))
