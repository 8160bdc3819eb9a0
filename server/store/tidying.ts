import { sql } from 'kysely'
import type { Db } from './open'
import { LATE_DAYS } from '~contract/classroom'
import { IMPORT_DAYS } from '~contract/import-state'
import { SESSION_DAYS } from './sessions'

/**
 * In all workshops at once, as the owner of the tables: what nobody will ask for again. Ended sessions and tickets,
 * forgotten guesses, models whose upload was given up, what was brought in long ago, classes that are over.
 */
export async function tidy(db: Db): Promise<void> {
  const before = (time: string) => sql<Date>`now() - ${sql.lit(time)}::interval`
  await db.deleteFrom('session').where('used_at', '<', before(`${SESSION_DAYS} days`)).execute()
  await db.deleteFrom('known_device').where('used_at', '<', before('1 year')).execute()
  await db.deleteFrom('ticket').where('ends_at', '<', before('0 days')).execute()
  await db.deleteFrom('guess').where('tried_at', '<', before('1 day')).execute()
  await db.deleteFrom('answered_challenge').where('at', '<', before('1 hour')).execute()
  await db.deleteFrom('audit').where('at', '<', before('2 years')).execute()
  await db.deleteFrom('import_job').where('made_at', '<', before(`${IMPORT_DAYS} days`)).execute()
  await db.deleteFrom('classroom').where('kept', '=', false).where('ends_at', '<', before(`${LATE_DAYS} days`)).execute()
  await db.deleteFrom('mesh').where('sha256', 'is', null).where('created_at', '<', before('1 day')).execute()
}
