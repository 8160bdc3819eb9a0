import { createHash, randomBytes, randomUUID } from 'node:crypto'
import { sql } from 'kysely'
import type { SessionRow } from '~contract/account'
import { announceEnded } from './announce'
import type { Db } from './open'

/**
 * Sessions and the devices they were begun from. The browser holds a secret, the database its hash: whoever reads the
 * database signs in with nothing of it.
 */
export const hashOf = (token: string) => createHash('sha256').update(token).digest('hex')
export const newToken = () => randomBytes(32).toString('base64url')

/** A session that is not used for so long has ended. */
export const SESSION_DAYS = 30
/** When it was used last is written no oftener than this. */
const USED_EVERY_MIN = 5
const alive = sql<boolean>`session.used_at > now() - make_interval(days => ${sql.lit(SESSION_DAYS)})`

export interface Entering { readonly accountId: string, readonly workshopId: string, readonly personId: string }

/** @returns the browser's secret */
export async function beginSession(
  db: Db,
  { accountId, workshopId, personId }: Entering,
  from: { readonly device: string, readonly place: string },
): Promise<string> {
  const token = newToken()
  await db.insertInto('session').values({
    id: randomUUID(),
    account_id: accountId,
    workshop_id: workshopId,
    person_id: personId,
    token_sha256: hashOf(token),
    ...from,
  }).execute()
  await db.updateTable('account').set({ workshop_id: workshopId }).where('id', '=', accountId).execute()
  return token
}

/** Whose a session is, as they are now; undefined when it has ended. `stale` when its use is to be written down. */
export async function personOfSession(db: Db, token: string) {
  return db.selectFrom('session')
    .innerJoin('person', on =>
      on.onRef('person.workshop_id', '=', 'session.workshop_id').onRef('person.id', '=', 'session.person_id'))
    .innerJoin('account', 'account.id', 'session.account_id')
    .innerJoin('workshop', 'workshop.id', 'session.workshop_id')
    .select([
      'person.id', 'person.name', 'person.role', 'account.email', 'account.id as accountId', 'session.id as sessionId',
      'workshop.id as workshopId', 'workshop.name as workshopName', 'workshop.units', 'workshop.clock', 'workshop.demo',
      'workshop.home', 'workshop.moving',
      sql<boolean>`session.used_at < now() - make_interval(mins => ${sql.lit(USED_EVERY_MIN)})`.as('stale'),
    ])
    .where('session.token_sha256', '=', hashOf(token)).where(alive).where('person.archived_at', 'is', null)
    .executeTakeFirst()
}

export async function noteUse(db: Db, id: string, place: string): Promise<void> {
  await db.updateTable('session').set({ used_at: sql`now()`, place }).where('id', '=', id).execute()
}

/** The sessions of an account, those used last first. */
export async function sessionsOf(db: Db, accountId: string, here: string): Promise<SessionRow[]> {
  const rows = await db.selectFrom('session').select(['id', 'device', 'place', 'made_at', 'used_at'])
    .where('account_id', '=', accountId).where(alive).orderBy('used_at', 'desc').execute()
  return rows.map(r => ({
    id: r.id,
    device: r.device,
    place: r.place,
    madeAt: r.made_at.getTime(),
    usedAt: r.used_at.getTime(),
    here: r.id === here,
  }))
}

/** Which sessions: all that every given thing is said of. */
export interface Which {
  readonly token?: string
  readonly id?: string
  readonly accountId?: string
  readonly workshopId?: string
  readonly personId?: string
  readonly except?: string
}

/** Ends sessions at once, their open streams too. @returns how many */
export async function endSessions(db: Db, which: Which): Promise<number> {
  let query = db.deleteFrom('session')
  if (which.token) query = query.where('token_sha256', '=', hashOf(which.token))
  if (which.id) query = query.where('id', '=', which.id)
  if (which.accountId) query = query.where('account_id', '=', which.accountId)
  if (which.workshopId) query = query.where('workshop_id', '=', which.workshopId)
  if (which.personId) query = query.where('person_id', '=', which.personId)
  if (which.except) query = query.where('id', '!=', which.except)
  const ended = await query.returning(['id', 'workshop_id']).execute()
  await announceEnded(db, ended.map(s => ({ session: s.id, workshop: s.workshop_id })))
  return ended.length
}

/** The session goes over to another workshop of its account. Streams of the old one end. */
export async function moveSession(db: Db, id: string, to: Entering): Promise<void> {
  await db.transaction().execute(async (trx) => {
    const was = await trx.selectFrom('session').select('workshop_id').where('id', '=', id).executeTakeFirstOrThrow()
    await trx.updateTable('session').set({ workshop_id: to.workshopId, person_id: to.personId }).where('id', '=', id).execute()
    await trx.updateTable('account').set({ workshop_id: to.workshopId }).where('id', '=', to.accountId).execute()
    await announceEnded(trx, [{ session: id, workshop: was.workshop_id }])
  })
}

export async function isKnownDevice(db: Db, token: string | undefined, accountId: string): Promise<boolean> {
  if (token === undefined) return false
  return (await db.selectFrom('known_device').select('account_id').where('token_sha256', '=', hashOf(token))
    .where('account_id', '=', accountId).executeTakeFirst()) !== undefined
}

/** Another password was chosen: browsers that knew the old one count as strangers again, but for `except`. */
export async function forgetDevices(db: Db, accountId: string, except?: string): Promise<void> {
  await db.deleteFrom('known_device').where('account_id', '=', accountId)
    .where('token_sha256', '!=', except === undefined ? '' : hashOf(except)).execute()
}

export async function knowDevice(db: Db, token: string, accountId: string): Promise<void> {
  await db.insertInto('known_device').values({ token_sha256: hashOf(token), account_id: accountId })
    .onConflict(c => c.columns(['token_sha256', 'account_id']).doUpdateSet({ used_at: sql`now()` })).execute()
}
