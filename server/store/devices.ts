import { randomUUID } from 'node:crypto'
import { sql } from 'kysely'
import type { DeviceFacts, DeviceId, NewDevice } from '~contract/devices'
import type { Db } from './open'
import type { Scope } from './scope'
import { hashOf, newToken } from './sessions'
import { Refused } from '../refused'

/** Devices that post what they measure, each with a secret of its own. */
const MOST = 20
const COLUMNS = ['id', 'kind', 'name', 'heard_at'] as const
interface Row { readonly id: string, readonly kind: DeviceId, readonly name: string, readonly heard_at: Date | null }

const factsOf = ({ id, kind, name, heard_at }: Row): DeviceFacts => ({
  id, kind, name, ...heard_at && { heardAt: heard_at.getTime() },
})

export async function devices(scope: Scope): Promise<DeviceFacts[]> {
  return (await scope.select('device').select(COLUMNS).orderBy('made_at').execute()).map(factsOf)
}

/** @throws Refused when there are as many as may be */
export async function makeDevice(scope: Scope, kind: DeviceId, name: string): Promise<NewDevice> {
  if ((await devices(scope)).length >= MOST) throw new Refused('too-many-devices')
  const token = newToken()
  const row = await scope.insert('device', [{ id: randomUUID(), kind, name, token_sha256: hashOf(token), heard_at: null }])
    .returning(COLUMNS).executeTakeFirstOrThrow()
  return { ...factsOf(row), token }
}

/** @returns what it was called; undefined when there is no such device */
export async function dropDevice(scope: Scope, id: string): Promise<string | undefined> {
  return (await scope.remove('device').where('id', '=', id).returning('name').executeTakeFirst())?.name
}

export async function hasDevice(scope: Scope, id: string): Promise<boolean> {
  return (await scope.select('device').select('id').where('id', '=', id).executeTakeFirst()) !== undefined
}

/** Whose secret this is; undefined when it was taken back or never was one. */
export async function deviceOf(db: Db, token: string) {
  return db.selectFrom('device').select(['id', 'kind', 'workshop_id as workshopId']).where('token_sha256', '=', hashOf(token))
    .executeTakeFirst()
}

/** Written once a minute at most: a scale says something five times a second. */
export async function noteHeard(db: Db, workshopId: string, id: string): Promise<void> {
  await db.updateTable('device').set({ heard_at: sql`now()` }).where('workshop_id', '=', workshopId).where('id', '=', id)
    .where(eb => eb.or([eb('heard_at', 'is', null), eb('heard_at', '<', sql<Date>`now() - interval '1 minute'`)])).execute()
}
