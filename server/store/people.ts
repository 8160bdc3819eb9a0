import { randomUUID } from 'node:crypto'
import type { PersonFacts, Role } from '~contract/account'
import { announce } from './announce'
import { writeAudit } from './audit'
import type { Scope } from './scope'
import { endSessions } from './sessions'
import { Refused } from '../refused'

/** The people of one workshop. */

/** @param addresses whether their addresses are told too */
export async function people(scope: Scope, addresses: boolean): Promise<PersonFacts[]> {
  const rows = await scope.select('person').leftJoin('account', 'account.id', 'person.account_id')
    .select(['person.id', 'person.name', 'account.email', 'person.role'])
    .where('person.archived_at', 'is', null).orderBy('person.name').execute()
  return rows.map(({ email, ...p }) => ({ ...p, ...(addresses && email && { email }) }))
}

/**
 * An account becomes a person of this workshop, or one who was taken out comes back. Who belongs to it already keeps
 * what they may do.
 * @returns the person's id
 */
export async function addPerson(
  scope: Scope,
  person: { readonly accountId: string, readonly name: string, readonly role: Role },
): Promise<string> {
  const known = await scope.select('person').select(['id', 'archived_at']).where('account_id', '=', person.accountId)
    .forUpdate().executeTakeFirst()
  if (known) {
    if (known.archived_at)
      await scope.update('person').set({ archived_at: null, role: person.role }).where('id', '=', known.id).execute()
    return known.id
  }
  const id = randomUUID()
  await scope.insert('person', [{
    id, account_id: person.accountId, name: person.name, role: person.role, archived_at: null,
  }]).execute()
  return id
}

/**
 * Changes what somebody may do, or takes them out; their sessions here end with that, their open streams too.
 * @param by who does it
 * @returns false when there is no such person. @throws Refused when the workshop would be left without an owner.
 */
export async function changePerson(
  scope: Scope,
  id: string,
  change: { role?: Role, archived?: boolean },
  by: string,
): Promise<boolean> {
  return scope.frontTransaction(async (inner, trx) => {
    const owners = await inner.select('person').select('id').where('role', '=', 'owner').where('archived_at', 'is', null)
      .orderBy('id').forUpdate().execute()
    const losesOwner = change.archived === true || (change.role !== undefined && change.role !== 'owner')
    if (losesOwner && owners.length === 1 && owners[0]!.id === id) throw new Refused('last-owner', 'role')
    const set = {
      ...(change.role && { role: change.role }),
      ...(change.archived !== undefined && { archived_at: change.archived ? new Date() : null }),
    }
    const about = await inner.select('person').select('name').where('id', '=', id).executeTakeFirst()
    if (!about) return false
    if (Object.keys(set).length === 0) return true
    await inner.update('person').set(set as never).where('id', '=', id).execute()
    if (change.role) await writeAudit(inner, { code: 'role', who: by, about: `${about.name} · ${change.role}` })
    if (change.archived) {
      await writeAudit(inner, { code: 'removed', who: by, about: about.name })
      await endSessions(trx, { workshopId: inner.workshopId, personId: id })
    }
    await announce(trx, inner.workshopId, { what: 'people' })
    return true
  })
}

/** The account of a person here; undefined when there is no such person. @throws Refused when they have none */
export async function accountOf(scope: Scope, id: string): Promise<{ accountId: string, name: string } | undefined> {
  const person = await scope.select('person').select(['account_id', 'name']).where('id', '=', id)
    .where('archived_at', 'is', null).executeTakeFirst()
  if (!person) return undefined
  if (!person.account_id) throw new Refused('no-account')
  return { accountId: person.account_id, name: person.name }
}
