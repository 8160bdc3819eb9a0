import { invitations } from '../../store/tickets'
import { serve } from '../../route'

export default serve('GET invitations', ({ db, scope }) => invitations(db, scope.workshopId))
