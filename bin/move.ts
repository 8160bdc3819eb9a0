import { sql } from 'kysely'
import { moveWorkshop, MoveRefused, type Addresses, type MoveRefusal, type MoveStep } from '../server/store/moving'
import { connect, migrateToLatest, type Db } from '../server/store/open'

/** What bin/move does, on the databases themselves; servers go on meanwhile. */

const say = (line: string) => process.stdout.write(`${line}\n`)
const FIRST = 'first'

const STEPS: Record<MoveStep, string> = {
  'copying': 'Copying its records; everybody goes on with their work.',
  'catching-up': 'Copying what was written meanwhile.',
  'stopped': 'For a moment nothing is written; screens keep what they are told.',
  'comparing': 'Comparing both, row by row.',
  'there': 'From now on they are there.',
}
const REFUSALS: Record<MoveRefusal, string> = {
  'no-such-workshop': 'There is no such workshop here, or more than one of that name. bin/move alone lists them with their ids.',
  'no-such-home': 'No such database was said. HOMES="second" bin/start starts one of that name; NUXT_HOMES names those you have.',
  'there-already': 'Its records are there already.',
  'import-under-way': 'A file is being brought into that workshop just now. Wait until that has ended.',
  'other-version': 'The two databases are of different versions. Start the server once, so that it brings both up to date.',
  'no-wall': 'The user of that database may not make roles, so nothing could keep an entry from being written where the '
    + 'records are no more. Let it make roles (alter role … createrole), restart the server, and try again.',
  'not-alike': 'What arrived is not what was there. Nothing was changed: the records are where they were.',
  'under-way': 'Somebody is moving this workshop at this moment.',
}

async function list(db: Db): Promise<void> {
  const rows = await db.selectFrom('workshop').select(['id', 'name', 'home', 'moving']).orderBy('name').execute()
  for (const { id, name, home, moving } of rows) say(`${id}  ${home ?? FIRST}${moving ? ', being moved' : ''}  ${name}`)
  if (rows.length === 0) say('There is no workshop yet.')
}

async function idOf(db: Db, said: string): Promise<string> {
  const rows = await db.selectFrom('workshop').select('id')
    .where(eb => eb.or([eb('name', '=', said), eb(sql`id::text`, '=', said)])).execute()
  if (rows.length !== 1) throw new MoveRefused('no-such-workshop')
  return rows[0]!.id
}

async function main([workshop, home]: readonly string[]): Promise<void> {
  const homes = JSON.parse(process.env.NUXT_HOMES || '{}') as Addresses['homes'], first = process.env.DATABASE_URL!
  const { db } = connect(first, { most: 1 })
  try {
    await migrateToLatest(db)
    if (!workshop || !home) return await list(db)
    const id = await idOf(db, workshop), to = home === FIRST ? null : home
    const moved = await moveWorkshop({ first, homes }, id, to, step => void say(STEPS[step]))
    say(moved.rows === 0
      ? 'It stays where it was, and goes on.'
      : `${moved.rows} rows; for ${(moved.stoppedMs / 1000).toFixed(1)} s nothing was written. What was left behind goes in a week.`)
  }
  finally {
    await db.destroy()
  }
}

main(process.argv.slice(2)).catch((error: Error) => {
  process.stderr.write(`${error instanceof MoveRefused ? REFUSALS[error.code] : error.message}\n`)
  process.exit(1)
})
