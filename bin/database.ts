import pg from 'pg'
import { connect, migrateToLatest } from '../server/store/open'
import { seedDemo } from '../demo/seed'

/** Makes the database ready: created when asked, migrated, and with the demo workshop in it when asked. */
async function main(): Promise<void> {
  const url = process.env.DATABASE_URL!
  const args = process.argv.slice(2)
  if (args.includes('--create')) await createIfMissing(url)
  const { db } = connect(url)
  try {
    await migrateToLatest(db)
    if (args.includes('--demo') || args.includes('--fresh-demo'))
      await seedDemo(db, Date.now(), { fresh: args.includes('--fresh-demo') })
  }
  finally {
    await db.destroy()
  }
}

async function createIfMissing(url: string): Promise<void> {
  const target = new URL(url)
  const name = target.pathname.slice(1)
  target.pathname = '/postgres'
  const client = new pg.Client({ connectionString: target.href })
  await client.connect()
  const { rowCount } = await client.query('select 1 from pg_database where datname = $1', [name])
  if (rowCount === 0) await client.query(`create database ${pg.escapeIdentifier(name)}`)
  await client.end()
}

/** The code of the innermost cause: connections fail deep inside. */
function codeOf(error: unknown): string {
  const e = error as { code?: string, cause?: unknown, errors?: unknown[] }
  return e.code ?? (e.cause ? codeOf(e.cause) : e.errors?.length ? codeOf(e.errors[0]) : '')
}

main().catch((error: Error) => {
  // Kysely's words for a migration that this version does not have.
  const newer = /previously executed migration .* is missing/.test(`${String(error)} ${String(error.cause)}`)
  const words: Record<string, string> = {
    'ECONNREFUSED': 'The database in DATABASE_URL does not answer. Is it running, and is the address right?',
    '28P01': 'The database refused the name or password in DATABASE_URL.',
    '3D000': 'The database named in DATABASE_URL does not exist yet. Create it first.',
    '42501': 'The database’s user in DATABASE_URL may not make tables there. Make it the owner of that database.',
    '58P01': 'A part of PostgreSQL that the records need is missing: install its package of additional modules (postgresql-contrib).',
    '0A000': 'A part of PostgreSQL that the records need is missing: install its package of additional modules (postgresql-contrib).',
    '53100': 'The disk is full, so the database cannot write. Make some room and try again; nothing is lost.',
  }
  const said = newer
    ? 'These records were written by a newer version of Nine Ripples. Bring this one up to date, or put back a backup of before: bin/restore.'
    : words[codeOf(error)]
  process.stderr.write(`${said ?? error.stack}\n`)
  process.exit(1)
})
