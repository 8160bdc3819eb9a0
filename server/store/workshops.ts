import { randomUUID } from 'node:crypto'
import { sql } from 'kysely'
import type { UnitPreferences } from '~core/units/units'
import { REAL_TIME, type WorkshopClock } from '~contract/clock'
import { createAccount, type NewAccount } from './accounts'
import { announce } from './announce'
import { writeAudit } from './audit'
import type { Db } from './open'
import { within } from './scope'
import { Refused } from '../refused'

/** Workshops as such: made, and changed. */

interface NewWorkshop {
  readonly name: string
  readonly units: UnitPreferences
  readonly clock: WorkshopClock
  readonly demo: boolean
}
interface Owner extends NewAccount { readonly name: string }
/** Who came of it. */
interface Made { readonly workshopId: string, readonly personId: string, readonly accountId: string }

export async function anyWorkshop(db: Db): Promise<boolean> {
  return (await db.selectFrom('workshop').select('id').limit(1).executeTakeFirst()) !== undefined
}

/** The first workshop with its owner. @throws Refused when one exists: the door closes behind the first person. */
export async function createFirstWorkshop(
  db: Db,
  name: string,
  units: UnitPreferences,
  owner: Owner,
): Promise<Made> {
  return db.transaction().execute(async (trx) => {
    // Two people pressing at once: the second waits here and then finds the workshop.
    await sql`lock table workshop in share row exclusive mode`.execute(trx)
    if (await anyWorkshop(trx)) throw new Refused('owned')
    return createWithOwner(trx, { name, units, clock: REAL_TIME, demo: false }, owner)
  })
}

/** A workshop with an owner who had no account yet. */
export async function createWithOwner(db: Db, workshop: NewWorkshop, owner: Owner): Promise<Made> {
  return createWorkshop(db, workshop, { accountId: await createAccount(db, owner), name: owner.name })
}

/** A workshop whose owner is this account. */
export async function createWorkshop(
  db: Db,
  workshop: NewWorkshop,
  owner: { readonly accountId: string, readonly name: string },
): Promise<Made> {
  const workshopId = randomUUID(), personId = randomUUID(), scope = within(db, workshopId)
  await db.insertInto('workshop').values({
    id: workshopId,
    name: workshop.name,
    units: JSON.stringify(workshop.units),
    clock: JSON.stringify(workshop.clock),
    demo: workshop.demo,
  }).execute()
  await scope.insert('person', [{
    id: personId, account_id: owner.accountId, name: owner.name, role: 'owner', archived_at: null,
  }]).execute()
  await writeAudit(scope, { code: 'opened', who: owner.name })
  return { workshopId, personId, accountId: owner.accountId }
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
