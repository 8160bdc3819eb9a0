import { readClassCode } from '~contract/class-code'
import { takeGuesses } from '../../auth/guessing'
import { guesserOf, keepSeat, seatHere } from '../../auth/seat'
import { Refused } from '../../refused'
import { found, refuse, serve } from '../../route'
import { addSeats } from '../../store/classrooms'
import { classByCode, seatAnswer, seatByToken } from '../../store/seats'
import { within } from '../../store/scope'
import { hashOf, newToken } from '../../store/sessions'

const NO_CODE = 'A code has eight signs, like 4K7M Q3XD. Look at the screen in front once more.'
const UNKNOWN = 'No class that is open has this code. Look at the screen in front once more; perhaps the class is over.'

/** A seat in a class. Two of one name are two seats; whoever reloads keeps theirs. */
export default serve('POST seat', async ({ event, db, body }) => {
  const code = readClassCode(body.code)
  const room = code ? await classByCode(db, code) : undefined
  if (!room) {
    await takeGuesses(db, [guesserOf(event)])
    throw refuse(code ? 404 : 400, code ? UNKNOWN : NO_CODE, 'code')
  }
  const before = await seatHere(event, db)
  if (before?.room.id === room.id && before.seat.name === body.name) return seatAnswer(before)
  if (room.shut) throw new Refused('class-shut')
  const token = newToken()
  await addSeats(within(db, room.workshop_id), db, room.id, [{ name: body.name, token: hashOf(token) }])
  keepSeat(event, token)
  return seatAnswer(found(await seatByToken(db, token), UNKNOWN))
})
