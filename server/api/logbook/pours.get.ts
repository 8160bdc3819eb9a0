import { findPours } from '../../store/logbook'
import { serve } from '../../route'

export default serve('GET logbook/pours', ({ scope, query: { after, ...query } }) => findPours(scope, query, after))
