import { setTimes } from '../../store/logbook'
import { serve } from '../../route'

export default serve('GET logbook/set-times', ({ scope, query }) => setTimes(scope, query.bag))
