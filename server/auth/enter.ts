import type { H3Event } from 'h3'
import { refuse } from '../route'
import { personToEnter } from '../store/accounts'
import { writeAudit } from '../store/audit'
import type { Db } from '../store/open'
import { within } from '../store/scope'
import { placeOf } from './place'
import { remember } from './session'

/** Signs in who proved to be this account. @throws a 403 when it belongs to no workshop any more */
export async function enterHere(event: H3Event, db: Db, accountId: string): Promise<void> {
  const person = await personToEnter(db, accountId)
  if (!person)
    throw refuse(403, 'You belong to no workshop here any more. Ask an owner to invite you again.')
  await remember(event, db, { accountId, workshopId: person.workshopId, personId: person.id })
  await writeAudit(within(db, person.workshopId), { code: 'signed-in', who: person.name, place: placeOf(event) })
}
