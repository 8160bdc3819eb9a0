import type { H3Event } from 'h3'
import { takeGuesses } from './guessing'
import { placeOf } from './place'
import type { LinkKind } from '~contract/link'
import { workshopOfLink } from '../store/links'
import { ticketOf } from '../store/tickets'
import type { Db } from '../store/open'
import { found } from '../route'

const GONE = 'This link was used already, was taken back, or is too old. Ask for a new one.'
const TAKEN_BACK = 'This link was taken back. Ask for a new one.'

/**
 * What a secret of 32 bytes opens. Whoever tries out others has to wait after some, and finds nothing by it: a right
 * one always opens, so that nobody's wall goes dark because of somebody else at the same address.
 * @throws a 404 for one that opens nothing, a 429 after too many of them
 */
async function heldBy<T>(event: H3Event, db: Db, known: T | undefined, gone: string): Promise<T> {
  if (known === undefined) await takeGuesses(db, [{ kind: 'link', about: placeOf(event) }])
  return found(known, gone)
}

export async function heldTicket(event: H3Event, db: Db, token: string) {
  return heldBy(event, db, await ticketOf(db, token), GONE)
}

/** The workshop that a link of this kind opens. @throws as above */
export async function heldLink(event: H3Event, db: Db, token: string, kind: LinkKind) {
  return heldBy(event, db, await workshopOfLink(db, token, kind), TAKEN_BACK)
}
