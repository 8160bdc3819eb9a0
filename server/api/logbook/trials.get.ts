import { trials } from '../../store/logbook'
import { serve } from '../../route'

export default serve('GET logbook/trials', ({ scope, query }) => trials(scope, query.facts))
