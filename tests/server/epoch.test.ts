import { sql } from 'kysely'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { epochOf } from '../../server/store/epoch'
import type { Db } from '../../server/store/open'
import { freshDatabase } from './fresh'

let db: Db, close: () => Promise<void>
beforeAll(async () => {
  ({ db, close } = await freshDatabase())
})
afterAll(() => close())

it('a database keeps its epoch over restarts, for every server and for who may only use it', async () => {
  const first = await epochOf(db)
  expect(await Promise.all([epochOf(db), epochOf(db)])).toEqual([first, first])
  await db.connection().execute(async (one) => {
    await sql`create role onlooker`.execute(one)
    await sql`grant all on epoch to onlooker`.execute(one)
    await sql`set role onlooker`.execute(one)
    expect(await epochOf(one)).toBe(first)
    await sql`reset role`.execute(one)
    await sql`drop owned by onlooker`.execute(one)
    await sql`drop role onlooker`.execute(one)
  })
})

it('has another as soon as the same rows stand in another place, once', async () => {
  const first = await epochOf(db)
  // As a dump that is read in: all rows, another database.
  const moved = await freshDatabase(), { rows } = await sql<{ id: string, place: string }>`select * from epoch`.execute(db)
  await sql`insert into epoch (id, place) values (${rows[0]!.id}, ${rows[0]!.place})
    on conflict (one) do update set id = excluded.id, place = excluded.place`.execute(moved.db)
  const other = await epochOf(moved.db)
  expect(other).not.toBe(first)
  expect(await epochOf(moved.db)).toBe(other)
  await moved.close()
})
