import { sql, type Kysely } from 'kysely'
import type { LiveMessage } from '~contract/pour'
import type { Database } from './schema'

export const CHANNEL = 'nine_ripples'

/** Tells every server that something changed; heard only when the transaction commits. Carries ids, never data. */
export async function announce(db: Kysely<Database>, workshop: string, message: LiveMessage): Promise<void> {
  await sql`select pg_notify(${CHANNEL}, ${JSON.stringify({ workshop, message })})`.execute(db)
}

/** Several at once, in one question to the database. */
export async function announceAll(
  db: Kysely<Database>,
  workshop: string,
  messages: readonly LiveMessage[],
): Promise<void> {
  await sql`select pg_notify(${CHANNEL}, m) from unnest(${
    messages.map(message => JSON.stringify({ workshop, message }))
  }::text[]) as m`.execute(db)
}

/** What a device measured: told to the benches that listen to it, and kept nowhere. */
export async function announceReading(
  db: Kysely<Database>,
  reading: { readonly workshop: string, readonly device: string, readonly line: object | null },
): Promise<void> {
  await sql`select pg_notify(${CHANNEL}, ${JSON.stringify(reading)})`.execute(db)
}

/** Sessions that have ended: their streams end with them. */
export async function announceEnded(
  db: Kysely<Database>,
  ended: readonly { readonly workshop: string, readonly session: string }[],
): Promise<void> {
  if (ended.length === 0) return
  await sql`select pg_notify(${CHANNEL}, m) from unnest(${ended.map(e => JSON.stringify(e))}::text[]) as m`.execute(db)
}
