import { deleteCookie, getCookie, setCookie, type H3Event } from 'h3'
import {
  beginSession, endSessions, forgetDevices, knowDevice, newToken, noteUse, personOfSession, SESSION_DAYS, type Entering,
} from '../store/sessions'
import type { Db } from '../store/open'
import { asWriting } from '../store/pools'
import { deviceOf, isSecure, placeOf } from './place'

/**
 * A session is a row; the browser holds its secret. Over https the cookie's name binds it to this very host and keeps
 * it from travelling otherwise (RFC 6265bis, 4.1.3.2); over plain http, on loopback alone, browsers know no such name.
 */
const DAY_S = 86_400
const cookieName = (event: H3Event, what: 'session' | 'device') =>
  `${isSecure(event) ? '__Host-' : ''}ripples-${what}`

function keep(event: H3Event, what: 'session' | 'device', token: string, days: number): void {
  setCookie(event, cookieName(event, what), token, {
    secure: isSecure(event), sameSite: 'lax', httpOnly: true, path: '/', maxAge: days * DAY_S,
  })
}
const secretOf = (event: H3Event, what: 'session' | 'device') => getCookie(event, cookieName(event, what))

export const deviceSecret = (event: H3Event) => secretOf(event, 'device')

/** Begins a session here, in the place of the one there was, and knows this browser from now on. */
export async function remember(event: H3Event, db: Db, who: Entering): Promise<void> {
  const before = secretOf(event, 'session')
  if (before) await endSessions(db, { token: before })
  const token = await beginSession(db, who, { device: deviceOf(event), place: placeOf(event) })
  keep(event, 'session', token, SESSION_DAYS)
  const device = deviceSecret(event) ?? newToken()
  await knowDevice(db, device, who.accountId)
  keep(event, 'device', device, 365)
}

/** Another password was chosen here: of the browsers that knew the old one only this is still known. */
export async function knowOnlyThis(event: H3Event, db: Db, accountId: string): Promise<void> {
  await forgetDevices(db, accountId, deviceSecret(event))
}

export function forgetHere(event: H3Event): void {
  deleteCookie(event, cookieName(event, 'session'), { path: '/', secure: isSecure(event), httpOnly: true, sameSite: 'lax' })
}

/** Who is here, with what they may do as it is now; undefined when nobody is signed in. */
export async function whoIs(event: H3Event, db: Db) {
  const token = secretOf(event, 'session')
  if (token === undefined || token.length > 100) return undefined
  const person = await personOfSession(db, token)
  if (person?.stale) {
    // Nobody waits for it: where nothing can be written just now, what is asked can still be read.
    const place = placeOf(event)
    void asWriting(() => noteUse(db, person.sessionId, place)).catch(() => {})
    keep(event, 'session', token, SESSION_DAYS)
  }
  return person
}
export type Here = NonNullable<Awaited<ReturnType<typeof whoIs>>>
