import { randomUUID } from 'node:crypto'
import { sql } from 'kysely'
import type { PasskeyRow } from '~contract/account'
import type { Db } from './open'
import { hashOf } from './sessions'
import { Refused } from '../refused'

/** Passkeys of accounts: the public half of keys that never leave their device. */

/** How many an account may have. */
export const MOST_PASSKEYS = 20

export interface NewPasskey {
  readonly accountId: string
  /** The name of the server it was made for: it answers no other. */
  readonly host: string
  /** As base64url, both. */
  readonly credential: string
  readonly publicKey: string
  readonly counter: number
  readonly transports: readonly string[]
  readonly name: string
}

/** @throws Refused when it is known already, or the account has as many as it may have */
export async function addPasskey(db: Db, key: NewPasskey): Promise<void> {
  if ((await passkeysOf(db, key.accountId)).length >= MOST_PASSKEYS) throw new Refused('too-many-passkeys')
  const made = await db.insertInto('passkey').values({
    id: randomUUID(),
    account_id: key.accountId,
    host: key.host,
    credential: key.credential,
    public_key: key.publicKey,
    counter: key.counter,
    transports: [...key.transports],
    name: key.name,
  }).onConflict(c => c.column('credential').doNothing()).returning('id').executeTakeFirst()
  if (!made) throw new Refused('passkey-known')
}

/** What its person knows of each, the newest first. */
export async function passkeysOf(db: Db, accountId: string): Promise<PasskeyRow[]> {
  const rows = await db.selectFrom('passkey').select(['id', 'name', 'host', 'made_at', 'used_at'])
    .where('account_id', '=', accountId).orderBy('made_at', 'desc').execute()
  return rows.map(({ made_at: made, used_at: used, ...r }) =>
    ({ ...r, madeAt: made.getTime(), usedAt: used?.getTime() }))
}

/** What a device is told, so that it makes no second one for the same account. */
export async function credentialsOf(db: Db, accountId: string) {
  return db.selectFrom('passkey').select(['credential', 'transports']).where('account_id', '=', accountId).execute()
}

export async function passkeyByCredential(db: Db, credential: string) {
  return db.selectFrom('passkey').selectAll().where('credential', '=', credential).executeTakeFirst()
}

export async function notePasskeyUse(db: Db, id: string, counter: number): Promise<void> {
  await db.updateTable('passkey').set({ counter, used_at: sql`now()` }).where('id', '=', id).execute()
}

/** @returns what it was called; undefined when the account has no such key */
export async function dropPasskey(db: Db, accountId: string, id: string): Promise<string | undefined> {
  const gone = await db.deleteFrom('passkey').where('account_id', '=', accountId).where('id', '=', id).returning('name')
    .executeTakeFirst()
  return gone?.name
}

/** All of an account: whoever lost everything begins anew. */
export async function dropPasskeys(db: Db, accountId: string): Promise<void> {
  await db.deleteFrom('passkey').where('account_id', '=', accountId).execute()
}

/** Takes an answer to this challenge, once. @returns false when it was answered before */
export async function takeChallenge(db: Db, challenge: string): Promise<boolean> {
  const taken = await db.insertInto('answered_challenge').values({ sha256: hashOf(challenge) })
    .onConflict(c => c.doNothing()).returning('sha256').executeTakeFirst()
  return taken !== undefined
}

/** Whether anybody signs in with one at this name. */
export async function anyPasskey(db: Db, host: string): Promise<boolean> {
  return (await db.selectFrom('passkey').select('id').where('host', '=', host).limit(1).executeTakeFirst()) !== undefined
}
