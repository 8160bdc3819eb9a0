import { sql } from 'kysely'
import type { Db } from './open'
import { LATE_DAYS } from '~contract/classroom'
import { IMPORT_DAYS } from '~contract/import-state'
import { RECORD_TABLES } from './homes'
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
  await forgetMoved(db)
  await db.deleteFrom('mesh').where('sha256', 'is', null).where('created_at', '<', before('1 day')).execute()
}

/** What was left where a workshop's records were before they were moved: a copy, for a week. */
async function forgetMoved(db: Db): Promise<void> {
  const gone = await db.selectFrom('workshop').select('id').where('gone_to', 'is not', null)
    .where('gone_at', '<', sql<Date>`now() - interval '7 days'`).execute()
  for (const { id } of gone) {
    for (const table of [...RECORD_TABLES].reverse())
      await db.deleteFrom(table as 'plan').where('workshop_id', '=', id).execute()
    await db.updateTable('workshop').set({ gone_at: null }).where('id', '=', id).execute()
  }
}
