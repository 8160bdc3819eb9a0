import { logbookViews } from '../../../store/logbook'
import { serve } from '../../../route'

export default serve('GET logbook/views', ({ scope }) => logbookViews(scope))
