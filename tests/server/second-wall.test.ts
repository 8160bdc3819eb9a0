import { randomUUID } from 'node:crypto'
import { sql } from 'kysely'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { METRIC } from '../../core/units/units'
import { REAL_TIME } from '../../contract/clock'
import { makeIds, MOULDS } from '../../demo/saltmarsh'
import { chance } from '../../demo/random'
import { saveItem } from '../../server/store/library'
import { connect, type Db } from '../../server/store/open'
import { within } from '../../server/store/scope'
import { APPLICATION_ROLE, inside, makeApplicationRole } from '../../server/store/second-wall'
import { createWithOwner } from '../../server/store/workshops'
import { freshDatabase } from './fresh'

/** What the database itself lets one workshop see of another, whatever the server asks for. */
const mould = makeIds(chance(9)).moulds.lantern
let owner: Db, close: () => Promise<void>, db: Db, one: string, two: string
async function workshop(name: string): Promise<string> {
  const { workshopId } = await createWithOwner(owner, { name, units: METRIC, clock: REAL_TIME, demo: false }, {
    name, email: `${name}@example.org`, passwordHash: 'x',
  })
  await saveItem(within(owner, workshopId), 'mould', mould, { ...MOULDS.lantern, name }, 0)
  return workshopId
}
beforeAll(async () => {
  const fresh = await freshDatabase()
  ;({ db: owner, close } = fresh)
  expect(await makeApplicationRole(owner)).toBe(true)
  ;({ db } = connect(fresh.url, { limited: true, most: 1, walled: true }))
  one = await workshop('one')
  two = await workshop('two')
})
afterAll(async () => {
  await db.destroy()
  await close()
})
/** Without the server's own wall: every mould there is, as far as the database tells. */
const seen = async (from: Db) =>
  (await sql<{ name: string }>`select body ->> 'name' as name from library_item order by 1`.execute(from)).rows.map(r => r.name)

describe('the database’s own wall', () => {
  it('shows the rows of one workshop at a time, on the same connection, and none to whoever is in none', async () => {
    expect(await seen(owner)).toEqual(['one', 'two'])
    expect(await seen(db)).toEqual([])
    expect(await seen(inside(db, one))).toEqual(['one'])
    expect(await seen(inside(db, two))).toEqual(['two'])
    expect(await seen(inside(db, one))).toEqual(['one'])
    expect(await inside(db, two).transaction().execute(trx => seen(trx))).toEqual(['two'])
  })

  it('lets nothing be written, changed or taken away next door', async () => {
    const here = inside(db, one)
    await sql`update library_item set revision = 99`.execute(here)
    await sql`delete from library_item where workshop_id = ${two}`.execute(here)
    await expect(within(here, two).insert('logbook_view', [{ id: randomUUID(), name: 'x', query: '{}' }]).execute())
      .rejects.toMatchObject({ code: '42501' })
    const rows = await sql<{ name: string, revision: number }>`
      select body ->> 'name' as name, revision from library_item order by 1`.execute(owner)
    expect(rows.rows).toEqual([{ name: 'one', revision: 99 }, { name: 'two', revision: 1 }])
  })

  it('stands in front of a role that owns nothing, before every table that is a workshop’s but those it names', async () => {
    expect((await sql<{ who: string }>`select current_user as who`.execute(db)).rows).toEqual([{ who: APPLICATION_ROLE }])
    const owned = await sql`select from pg_tables where schemaname = 'public' and tableowner = ${APPLICATION_ROLE}`.execute(owner)
    expect(owned.rows).toEqual([])
    const open = await sql<{ name: string }>`
      select c.table_name as name from information_schema.columns c join pg_class t on t.relname = c.table_name
      where c.table_schema = 'public' and c.column_name = 'workshop_id' and t.relkind = 'r' and not t.relrowsecurity
      order by 1`.execute(owner)
    // Who somebody is, and what a secret opens, is found before it is known where; the two last are searched by index.
    expect(open.rows.map(r => r.name)).toEqual([
      'account', 'audit', 'classroom', 'device', 'link', 'logbook_word', 'person', 'pour_projection', 'seat', 'session',
      'ticket',
    ])
  })
})
