import { randomUUID } from 'node:crypto'
import type { Role, Invitation, NewTicket, TicketKind } from '~contract/account'
import type { Db } from './open'
import { hashOf, newToken } from './sessions'
import { Refused } from '../refused'

/** Secrets that open one door once: invitations, and resets of a password. Only their hashes are kept. */

const HOUR = 3_600_000
/** How long each is good for. */
export const GOOD_FOR_MS: Readonly<Record<TicketKind, number>> = {
  join: 7 * 24 * HOUR,
  open: 7 * 24 * HOUR,
  reset: HOUR,
}
const MOST_OUT = 50

export interface NewTicketFacts {
  readonly kind: TicketKind
  readonly workshopId?: string
  readonly accountId?: string
  readonly role?: Role
  readonly name?: string
}

/** @throws Refused when as many are out as there may be */
export async function makeTicket(
  db: Db,
  { kind, workshopId, accountId, role, name }: NewTicketFacts,
): Promise<NewTicket> {
  if (workshopId && (await invitations(db, workshopId)).length >= MOST_OUT) throw new Refused('too-many-invitations')
  const token = newToken(), id = randomUUID(), endsAt = Date.now() + GOOD_FOR_MS[kind]
  await db.insertInto('ticket').values({
    id,
    kind,
    token_sha256: hashOf(token),
    workshop_id: workshopId ?? null,
    account_id: accountId ?? null,
    role: role ?? null,
    name: name ?? '',
    ends_at: new Date(endsAt),
  }).execute()
  return { id, token, endsAt }
}

/** What a secret opens now; undefined when it was used, was taken back, ran out or never was. */
export async function ticketOf(db: Db, token: string) {
  return db.selectFrom('ticket').leftJoin('workshop', 'workshop.id', 'ticket.workshop_id')
    .leftJoin('account', 'account.id', 'ticket.account_id')
    .select([
      'ticket.id', 'ticket.kind', 'ticket.role', 'ticket.name', 'ticket.workshop_id as workshopId', 'workshop.name as workshop',
      'ticket.account_id as accountId', 'account.email',
    ])
    .where('token_sha256', '=', hashOf(token)).where('ends_at', '>', new Date()).executeTakeFirst()
}

/** Uses it up. @returns false when somebody else was quicker */
export async function useUp(db: Db, id: string): Promise<boolean> {
  return (await db.deleteFrom('ticket').where('id', '=', id).executeTakeFirst()).numDeletedRows > 0n
}

/** Invitations of a workshop that can still be used. */
export async function invitations(db: Db, workshopId: string): Promise<Invitation[]> {
  const rows = await db.selectFrom('ticket').select(['id', 'kind', 'name', 'role', 'ends_at'])
    .where('workshop_id', '=', workshopId).where('kind', '!=', 'reset').where('ends_at', '>', new Date())
    .orderBy('made_at').execute()
  return rows.map(r => ({ id: r.id, kind: r.kind, name: r.name, role: r.role ?? 'owner', endsAt: r.ends_at.getTime() }))
}

/** @returns what it was called; undefined when there is no such invitation */
export async function dropInvitation(db: Db, workshopId: string, id: string): Promise<string | undefined> {
  const gone = await db.deleteFrom('ticket').where('workshop_id', '=', workshopId).where('id', '=', id).returning('name')
    .executeTakeFirst()
  return gone?.name
}
