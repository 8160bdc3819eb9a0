import { deleteCookie, getCookie, setCookie, type H3Event } from 'h3'
import { LATE_DAYS, MOST_HOURS } from '~contract/classroom'
import { refuse } from '../route'
import type { Db } from '../store/open'
import { seatByToken, type Seated } from '../store/seats'
import { newToken } from '../store/sessions'
import { isSecure, placeOf } from './place'
import type { Guess } from './guessing'

/**
 * A seat’s secret: its own cookie, over plain http too, since nobody in a class installs anything. It opens a seat and
 * nothing else; never found again by name.
 */
const SEAT = 'ripples-seat', TRIED = 'ripples-seat-tried'
const keep = (event: H3Event, name: string, value: string) => setCookie(event, name, value, {
  secure: isSecure(event), sameSite: 'lax', httpOnly: true, path: '/', maxAge: LATE_DAYS * 86_400 + MOST_HOURS * 3600,
})

export const keepSeat = (event: H3Event, token: string): void => keep(event, SEAT, token)
export const leaveSeat = (event: H3Event): void =>
  deleteCookie(event, SEAT, { path: '/', secure: isSecure(event), httpOnly: true, sameSite: 'lax' })

const NONE = 'You have no seat in a class here. Type the code your teacher shows.'
/** Whose seat this is. @throws a 401 when it is nobody’s */
export async function seated(event: H3Event, db: Db): Promise<Seated> {
  const here = await seatByToken(db, getCookie(event, SEAT))
  if (!here) throw refuse(401, NONE)
  return here
}
export const seatHere = (event: H3Event, db: Db) => seatByToken(db, getCookie(event, SEAT))

/**
 * Who tries out codes: a browser that was here before, for itself; one that was not, with all others at its place. A
 * right code always opens, so that one who guesses shuts no class out.
 */
export function guesserOf(event: H3Event): Guess {
  const known = getCookie(event, TRIED)
  if (known && /^[\w-]{43}$/.test(known)) return { kind: 'seatDevice', about: known }
  keep(event, TRIED, newToken())
  return { kind: 'seatPlace', about: placeOf(event) }
}
