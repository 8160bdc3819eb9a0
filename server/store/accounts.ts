import { randomUUID } from 'node:crypto'
import type { Db } from './open'
import { Refused } from '../refused'

/** Accounts: who signs in. They stand outside of all workshops; who somebody is in one is a person (people.ts). */

export interface NewAccount { readonly email: string, readonly passwordHash: string }

/** @returns its id. @throws Refused when somebody signs in with this address already. */
export async function createAccount(db: Db, { email, passwordHash }: NewAccount): Promise<string> {
  const row = await db.insertInto('account').values({ id: randomUUID(), email, password_hash: passwordHash })
    .onConflict(c => c.column('email').doNothing()).returning('id').executeTakeFirst()
  if (!row) throw new Refused('email-taken', 'email')
  return row.id
}

export async function accountByEmail(db: Db, email: string) {
  return db.selectFrom('account').selectAll().where('email', '=', email).executeTakeFirst()
}

export async function accountById(db: Db, id: string) {
  return db.selectFrom('account').selectAll().where('id', '=', id).executeTakeFirstOrThrow()
}

/** Another password; links to one that are still out open nothing any more. */
export async function setPassword(db: Db, id: string, passwordHash: string): Promise<void> {
  await db.deleteFrom('ticket').where('account_id', '=', id).where('kind', '=', 'reset').execute()
  await db.updateTable('account').set({ password_hash: passwordHash }).where('id', '=', id).execute()
}

/** Changes what is known of an account's second factor. */
export async function setSecondFactor(db: Db, id: string, set: {
  readonly second_factor?: string | null
  readonly second_factor_asked?: string | null
  readonly recovery_sha256?: string[]
}): Promise<void> {
  await db.updateTable('account').set(set).where('id', '=', id).execute()
}

/** Takes the code of this half minute, once. @returns false when it, or a later one, was taken already. */
export async function takeStep(db: Db, id: string, step: number): Promise<boolean> {
  const taken = await db.updateTable('account').set({ second_factor_step: step }).where('id', '=', id)
    .where(eb => eb.or([eb('second_factor_step', 'is', null), eb('second_factor_step', '<', step)])).executeTakeFirst()
  return taken.numUpdatedRows > 0n
}

/** Takes a recovery code away by using it. @returns false when there is none like it. */
export async function takeRecovery(db: Db, id: string, sha256: string): Promise<boolean> {
  return db.transaction().execute(async (trx) => {
    const row = await trx.selectFrom('account').select('recovery_sha256').where('id', '=', id).forUpdate().executeTakeFirst()
    if (!row?.recovery_sha256.includes(sha256)) return false
    await setSecondFactor(trx, id, { recovery_sha256: row.recovery_sha256.filter(r => r !== sha256) })
    return true
  })
}

/** The person of the workshop that an account enters: the one it was in last, else the first it came to. */
export async function personToEnter(db: Db, accountId: string) {
  return db.selectFrom('person').innerJoin('account', 'account.id', 'person.account_id')
    .select(['person.id', 'person.workshop_id as workshopId', 'person.name'])
    .where('account.id', '=', accountId).where('person.archived_at', 'is', null)
    .orderBy(eb => eb('person.workshop_id', '=', eb.ref('account.workshop_id')), d => d.desc().nullsLast())
    .orderBy('person.created_at').limit(1).executeTakeFirst()
}

/** The workshops an account belongs to. */
export async function workshopsOf(db: Db, accountId: string) {
  return db.selectFrom('person').innerJoin('workshop', 'workshop.id', 'person.workshop_id')
    .select(['workshop.id', 'workshop.name', 'person.role', 'person.id as personId', 'person.name as personName'])
    .where('person.account_id', '=', accountId).where('person.archived_at', 'is', null)
    .orderBy('workshop.name').execute()
}

/** The person behind the one-press entrance of the demo. */
export async function demoOwner(db: Db) {
  return db.selectFrom('person').innerJoin('workshop', 'workshop.id', 'person.workshop_id')
    .select(['person.id', 'person.workshop_id as workshopId', 'person.account_id as accountId', 'person.name'])
    .where('workshop.demo', '=', true).where('person.role', '=', 'owner').where('person.account_id', 'is not', null)
    .orderBy('workshop.created_at').limit(1).executeTakeFirst()
}
