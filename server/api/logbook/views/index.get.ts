import { logbookViews } from '../../../db/logbook'
import { route } from '../../../route'

export default route('viewer', {}, ({ scope }) => logbookViews(scope))
