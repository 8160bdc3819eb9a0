import { logbookViews } from '../../../store/logbook'
import { route } from '../../../route'

export default route('viewer', {}, ({ scope }) => logbookViews(scope))
