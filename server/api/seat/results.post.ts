import { seated } from '../../auth/seat'
import { serve } from '../../route'
import { takeResult } from '../../store/seats'

export default serve('POST seat/results', async ({ event, db, body }) => takeResult(db, await seated(event, db), body))
