import { logbookQuerySchema } from '~contract/logbook'
import { talliesOfWorkshop } from '../../store/logbook'
import { route } from '../../route'

export default route(
  'viewer',
  { query: logbookQuerySchema.pick({ from: true, to: true }) },
  ({ scope, query }) => talliesOfWorkshop(scope, query.from, query.to),
)
