import { logbookQuerySchema } from '~shared/logbook'
import { talliesOfWorkshop } from '../../db/logbook'
import { route } from '../../route'

export default route('viewer', { query: logbookQuerySchema.pick({ from: true, to: true }) }, ({ scope, query }) => talliesOfWorkshop(scope, query.from, query.to))
