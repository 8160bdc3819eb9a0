import type { TicketFacts } from '~contract/account'
import { heldTicket } from '../../auth/tickets'
import { serve } from '../../route'

export default serve('GET tickets/:token', async ({ event, db, params }): Promise<TicketFacts> => {
  const { kind, name, role, workshop, email } = await heldTicket(event, db, params.token)
  return {
    kind, name,
    ...(kind === 'join' && { workshop: workshop!, role: role! }),
    ...(kind === 'reset' && { email: email! }),
  }
})
