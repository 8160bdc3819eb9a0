import pg from 'pg'
import { inject } from 'vitest'
import { connect, migrateToLatest, type Db } from '../../server/store/open'

let made = 0

/** A new database of this test's own, migrated to the newest schema or to an old one. */
export async function freshDatabase(stopAt?: string): Promise<{ db: Db, url: string, close: () => Promise<void> }> {
  const base = inject('databaseBase')
  const name = `t${process.pid}_${Date.now().toString(36)}_${++made}`
  const admin = new pg.Client({ connectionString: `${base}postgres` })
  await admin.connect()
  await admin.query(`create database ${name}`)
  await admin.end()
  const url = `${base}${name}`
  const { db } = connect(url)
  await migrateToLatest(db, stopAt)
  return { db, url, close: () => db.destroy() }
}
