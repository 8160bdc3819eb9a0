import { SEAT_KINDS } from '~contract/classroom'
import { workshopTime } from '~contract/clock'
import type { Arriving, Fate } from '~contract/pour'
import { seated } from '../../auth/seat'
import { Refused } from '../../refused'
import { found, serve } from '../../route'
import { seatActor } from '../../store/classrooms'
import { takeEntries } from '../../store/entries'

const MINE = new Set<unknown>(SEAT_KINDS)
const NOT_YOURS = 'That is told by your teacher.'
const refusedOf = ({ id }: Arriving): Fate => ({ id, fate: 'refused', code: 'unreadable', sentence: NOT_YOURS })

/** Entries of one’s own kit, of the kinds a seat may tell; late ones too, for a week. */
export default serve('POST seat/events', async ({ event, db, body }) => {
  const { seat, room, workshop, scope } = await seated(event, db)
  if (!room.kit || !seat.pour_id) throw new Refused('no-kit')
  const now = workshopTime(workshop.clock, Date.now())
  const mine = body.events.filter(e => MINE.has((e as { kind?: unknown }).kind))
  const taken = await takeEntries(scope, seat.pour_id, mine, {
    actor: seatActor(seat.number), skewMs: body.sentAt - now, after: body.after,
  })
  const { fates, ...answer } = found(taken, 'Your kit was not begun yet.')
  const all = [...fates, ...body.events.filter(e => !mine.includes(e)).map(refusedOf)]
  return { ...answer, fates: all }
})
