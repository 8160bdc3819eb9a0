import { talliesOfWorkshop } from '../../store/logbook'
import { serve } from '../../route'

export default serve('GET logbook/tallies', ({ scope, query }) => talliesOfWorkshop(scope, query.from, query.to))
