import { randomUUID } from 'node:crypto'
import { sql } from 'kysely'
import type { UnitPreferences } from '~core/units/units'
import type { PersonFacts, Role } from '~contract/account'
import { REAL_TIME, type WorkshopClock } from '~contract/clock'
import { announce } from './announce'
import type { Db } from './open'
import type { Scope } from './scope'
import { Refused } from '../refused'

/**
 * Accounts: the few queries that run before it is known which workshop a person belongs to, and those about the
 * workshop itself.
 */

interface NewPerson {
  readonly name: string
  readonly email: string
  readonly passwordHash: string
  readonly role: Role
}

export async function anyWorkshop(db: Db): Promise<boolean> {
  return (await db.selectFrom('workshop').select('id').limit(1).executeTakeFirst()) !== undefined
}

/** The first workshop with its owner. @throws Refused when one exists: the door closes behind the first person. */
export async function createFirstWorkshop(
  db: Db,
  name: string,
  units: UnitPreferences,
  owner: NewPerson,
): Promise<{ workshopId: string, personId: string }> {
  return db.transaction().execute(async (trx) => {
    // Two people pressing at once: the second waits here and then finds the workshop.
    await sql`lock table workshop in share row exclusive mode`.execute(trx)
    if (await trx.selectFrom('workshop').select('id').limit(1).executeTakeFirst()) throw new Refused('owned')
    return createWorkshop(trx, { name, units, clock: REAL_TIME, demo: false }, owner)
  })
}

export async function createWorkshop(
  db: Db,
  workshop: { name: string, units: UnitPreferences, clock: WorkshopClock, demo: boolean },
  owner: NewPerson,
): Promise<{ workshopId: string, personId: string }> {
  const workshopId = randomUUID(), personId = randomUUID()
  await db.insertInto('workshop').values({
    id: workshopId,
    name: workshop.name,
    units: JSON.stringify(workshop.units),
    clock: JSON.stringify(workshop.clock),
    demo: workshop.demo,
  }).execute()
  await db.insertInto('person').values({
    id: personId,
    workshop_id: workshopId,
    name: owner.name,
    email: owner.email,
    password_hash: owner.passwordHash,
    role: owner.role,
    archived_at: null,
  }).execute()
  return { workshopId, personId }
}

const PERSON = ['person.id', 'person.name', 'person.email', 'person.role'] as const

/** Who a session belongs to, with the role as it is now; undefined when the person was archived meanwhile. */
export async function personById(db: Db, id: string) {
  return db.selectFrom('person').innerJoin('workshop', 'workshop.id', 'person.workshop_id')
    .select([
      ...PERSON,
      'workshop.id as workshopId',
      'workshop.name as workshopName',
      'workshop.units',
      'workshop.clock',
      'workshop.demo',
    ])
    .where('person.id', '=', id).where('person.archived_at', 'is', null).executeTakeFirst()
}

export async function personByEmail(db: Db, email: string) {
  return db.selectFrom('person').select(['id', 'password_hash']).where('email', '=', email).where(
    'archived_at',
    'is',
    null,
  ).executeTakeFirst()
}

/** The person behind the one-press entrance of the demo. */
export async function demoOwner(db: Db) {
  return db.selectFrom('person').innerJoin('workshop', 'workshop.id', 'person.workshop_id').select('person.id').where(
    'workshop.demo',
    '=',
    true,
  ).where('person.role', '=', 'owner').orderBy('workshop.created_at').limit(1).executeTakeFirst()
}

export async function changeWorkshop(
  db: Db,
  workshopId: string,
  change: { name?: string, units?: UnitPreferences, clock?: WorkshopClock },
): Promise<void> {
  await db.transaction().execute(async (trx) => {
    const set = {
      ...(change.name && { name: change.name }),
      ...(change.units && { units: JSON.stringify(change.units) }),
      ...(change.clock && { clock: JSON.stringify(change.clock) }),
    }
    if (Object.keys(set).length > 0) await trx.updateTable('workshop').set(set).where('id', '=', workshopId).execute()
    await announce(trx, workshopId, { what: change.clock ? 'clock' : 'people' })
  })
}

export async function people(scope: Scope): Promise<PersonFacts[]> {
  return scope.select('person').select(['id', 'name', 'email', 'role']).where('archived_at', 'is', null).orderBy('name')
    .execute()
}

export async function addPerson(scope: Scope, person: NewPerson): Promise<PersonFacts> {
  const rows = await scope.insert('person', [{
    id: randomUUID(),
    name: person.name,
    email: person.email,
    password_hash: person.passwordHash,
    role: person.role,
    archived_at: null,
  }])
    .onConflict(c => c.column('email').doNothing()).returning(['id', 'name', 'email', 'role']).execute()
  if (!rows[0]) throw new Refused('email-taken', 'email')
  return rows[0]
}

/** @returns false when there is no such person. @throws Refused when the workshop would be left without one. */
export async function changePerson(
  scope: Scope,
  id: string,
  change: { role?: Role, passwordHash?: string, archived?: boolean },
): Promise<boolean> {
  return scope.transaction(async (inner) => {
    const owners = await inner.select('person').select('id').where('role', '=', 'owner').where(
      'archived_at',
      'is',
      null,
    ).forUpdate().execute()
    const losesOwner = change.archived === true || (change.role !== undefined && change.role !== 'owner')
    if (losesOwner && owners.length === 1 && owners[0]!.id === id) throw new Refused('last-owner', 'role')
    const set = {
      ...(change.role && { role: change.role }),
      ...(change.passwordHash && { password_hash: change.passwordHash }),
      ...(change.archived !== undefined && { archived_at: change.archived ? new Date() : null }),
    }
    if (Object.keys(set).length === 0) return true
    const result = await inner.update('person').set(set as never).where('id', '=', id).executeTakeFirst()
    return result.numUpdatedRows > 0n
  })
}
