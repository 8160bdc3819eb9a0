import { seatHere, seated } from '../../auth/seat'
import { serve } from '../../route'
import { classStreamOf } from '../../live/stream'

/** That the class was given something else, or one’s own kit has entries from elsewhere. It ends with the seat. */
export default serve('GET seat/live', async ({ event, db }) => {
  const { seat, room, workshop: { home } } = await seated(event, db)
  return classStreamOf(event, { workshop: room.workshop_id, home }, room.id, async (message) => {
    if (message.what === 'pour') return message.pour === seat.pour_id ? { what: 'pour' } : undefined
    if (message.what !== 'class' || message.class !== room.id) return undefined
    const still = await seatHere(event, db)
    return still?.seat.id === seat.id ? { what: 'class' } : 'end'
  })
})
