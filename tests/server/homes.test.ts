import { randomUUID } from 'node:crypto'
import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import pg from 'pg'
import sharp from 'sharp'
import { afterAll, beforeAll, expect, inject, it } from 'vitest'
import { BUCKETS, MOULDS } from '../../demo/saltmarsh'
import { METRIC } from '~core/units/units'
import { REAL_TIME } from '~contract/clock'
import { startCluster } from '../../bin/cluster.mjs'
import { RECORD_TABLES } from '../../server/store/homes'
import { moveWorkshop, type MoveStep, type Telling } from '../../server/store/moving'
import { connect, migrateToLatest } from '../../server/store/open'
import { tidy } from '../../server/store/tidying'
import { createWithOwner } from '../../server/store/workshops'
import { launch, type Product } from '../product'
import { goesOn, note, watching, writing } from './hands'
import { ask, ids, PASSWORD, plan } from './over-http'

/** A workshop's records moved from one database to another, each on a cluster of its own, while people are at work. */
let cluster: Awaited<ReturnType<typeof startCluster>>, product: Product, cookie = '', workshop = '', pour = ''
let first: pg.Client, second: pg.Client, addresses: Parameters<typeof moveWorkshop>[0]
const tell = (method: string, path: string, body?: unknown) => ask(product, method, path, { cookie, body })
const send = (event: object) =>
  tell('POST', `pours/${pour}/events`, { sentAt: Date.now(), after: 0, events: [event] }).catch(() => undefined)
const eventsOf = async () => (await tell('GET', `pours/${pour}`)).body.events as { id: string }[]
const move = (home: string | null, told?: Telling) => moveWorkshop(addresses, workshop, home, told)
async function connected(url: string): Promise<pg.Client> {
  const client = new pg.Client({ connectionString: url })
  await client.connect()
  return client
}
const countIn = async (client: pg.Client, table = 'pour_event') => Number(
  (await client.query(`select count(*) as n from ${table} where workshop_id = $1`, [workshop])).rows[0].n)

interface Item { readonly id: string, readonly revision: number, readonly body: { readonly name: string } }
const bowl = async () => ((await tell('GET', 'library/bucket')).body as unknown as Item[])
  .find(b => b.id === ids.buckets.bowl)!
async function renameBowl(name: string): Promise<void> {
  const { revision } = await bowl(), body = { ...BUCKETS.bowl, name }
  expect((await tell('PUT', `library/bucket/${ids.buckets.bowl}`, { body, revision })).status).toBe(200)
}

beforeAll(async () => {
  cluster = await startCluster(join(mkdtempSync(join(tmpdir(), 'ripples-')), 'pg'), { throwaway: true })
  const admin = await connected(cluster.url('postgres'))
  await admin.query('create database home_second')
  await admin.end()
  product = await launch(inject('databaseBase'), { demo: false, homes: { second: cluster.url('home_second') } })
  addresses = { first: product.databaseUrl, homes: { second: cluster.url('home_second') } }
  first = await connected(addresses.first)
  second = await connected(addresses.homes.second!)
  const owner = { workshop: 'Moved', name: 'First', email: 'first@example.org', password: PASSWORD }
  cookie = (await ask(product, 'POST', 'owner', { body: owner })).cookie
  workshop = ((await tell('GET', 'session')).body.workshop as { id: string }).id
  await tell('PUT', `library/mould/${ids.moulds.lantern}`, { body: MOULDS.lantern, revision: 0 })
  await tell('PUT', `library/bucket/${ids.buckets.bowl}`, { body: BUCKETS.bowl, revision: 0 })
  pour = randomUUID()
  const begun = { id: pour, plan: plan(), startedAt: Date.now(), device: 'd', deviceSeq: 1, eventId: randomUUID() }
  expect((await tell('POST', 'pours', begun)).status).toBe(200)
}, 300_000)
afterAll(async () => {
  await product?.kill()
  await Promise.all([first, second].map(c => c?.end()))
  cluster?.stop()
})

it('every table that belongs to workshops is on one side or the other', async () => {
  const { rows } = await first.query<{ name: string }>(`select table_name as name from information_schema.columns
    where column_name = 'workshop_id' and table_schema = 'public' order by 1`)
  const fronts = [
    'account', 'audit', 'classroom', 'device', 'link', 'person', 'seat', 'seat_result', 'session', 'ticket',
  ]
  expect(rows.map(r => r.name)).toEqual([...fronts, ...RECORD_TABLES].sort())
  // A record that is written where it is no more fails, in each of them.
  const { rows: fenced } = await first.query<{ name: string }>(
    `select tgrelid::regclass::text as name from pg_trigger where tgname = 'stays_here' order by 1`)
  expect(fenced.map(r => r.name)).toEqual([...RECORD_TABLES].sort())
})

it('there and back while it is poured in, changed and listened to: nothing is lost, nothing is double', async () => {
  const page = watching(product.url, cookie), { told, stop } = writing(3, send)
  const { body: link } = await tell('POST', 'links', { kind: 'wall', name: 'Wall' })
  const photo = randomUUID(), picture = await sharp({ create: { width: 9, height: 9, channels: 3, background: 'red' } }).jpeg().toBuffer()
  await fetch(`${product.url}/api/photos/${photo}?mould=${ids.moulds.lantern}`, {
    method: 'PUT', headers: { 'origin': product.url, cookie, 'content-type': 'image/jpeg' }, body: picture as BodyInit,
  })
  for (const home of ['second', null, 'second']) {
    await goesOn(told)
    const moved = await move(home, async (step) => {
      // Changed after it was copied, and once more after that was caught up with.
      if (step === 'catching-up' || step === 'stopped') await renameBowl(`Bowl, ${step} ${home}`)
    })
    expect(moved.rows).toBeGreaterThan(told.length)
    expect((await bowl()).body.name).toBe(`Bowl, stopped ${home}`)
    await goesOn(told)
  }
  await stop()
  const there = await eventsOf(), seen = new Set(there.map(e => e.id)), after = note('after all that')
  expect(told.filter(id => !seen.has(id))).toEqual([])
  expect(there).toHaveLength(seen.size)
  expect(await countIn(second)).toBe(there.length)
  await expect.poll(async () => {
    await send(after)
    return page.heard()
  }).toContain(after.id)
  const epochs = new Set([...page.heard().matchAll(/"epoch":"([^"]+)"/g)].map(m => m[1]))
  expect(epochs.size).toBe(2)
  await page.leave()
  // What opens doors stayed, and leads to where the records are.
  const wall = await fetch(`${product.url}/api/wall/${(link as { token: string }).token}`).then(r => r.json())
  expect(wall.pours.map((p: { id: string }) => p.id)).toEqual([pour])
  expect((await fetch(`${product.url}/api/photos/${photo}`, { headers: { cookie } })).status).toBe(200)
}, 300_000)

it('what is on its way when it stops is waited for, and what comes later is not written there', async () => {
  await move(null)
  const writer = await connected(addresses.first)
  await writer.query(`set ripples.workshop = '${workshop}'`)
  await writer.query('begin')
  const row = `insert into logbook_view (id, workshop_id, name, query) values ('${randomUUID()}', '${workshop}', 'late', '{}')`
  await writer.query(row)
  const steps: MoveStep[] = [], moving = move('second', step => void steps.push(step))
  const waits = async () => (await first.query(
    `select from pg_stat_activity where wait_event_type = 'Lock' and query like '%for update%'`)).rowCount
  await expect.poll(waits).toBe(1)
  expect(steps.at(-1)).toBe('stopped')
  await writer.query('commit')
  await moving
  expect(await countIn(second, 'logbook_view')).toBe(1)
  await expect(writer.query(row.replace(/'[^']+'/, `'${randomUUID()}'`))).rejects.toMatchObject({ code: 'RM001' })
  await expect(writer.query(`update plan set revision = 9`)).rejects.toMatchObject({ code: 'RM001' })
  await writer.end()
})

it('what was deleted after it was copied is not there afterwards', async () => {
  await move(null)
  const { rows: [view] } = await first.query('select id from logbook_view where workshop_id = $1', [workshop])
  await move('second', async (step) => {
    if (step === 'stopped') expect((await tell('DELETE', `logbook/views/${view.id as string}`)).status).toBe(200)
  })
  expect(await countIn(second, 'logbook_view')).toBe(0)
})

it('broken off in its last moment it goes on where it was; killed there, it waits and is moved by the next try', async () => {
  await expect(move(null, (step) => {
    if (step === 'comparing') throw new Error('the cable')
  })).rejects.toThrow('the cable')
  expect((await send(note('still here')))?.status).toBe(200)
  await first.query('update workshop set moving = true where id = $1', [workshop])
  await second.query(`update workshop set gone_to = 'first', gone_at = now() where id = $1`, [workshop])
  const held = note('kept by the screen'), answer = await send(held)
  expect(answer).toMatchObject({ status: 503, body: { data: { sentence: expect.stringContaining('being moved') } } })
  // Who they are is known all the same.
  expect((await tell('GET', 'session')).status).toBe(200)
  await move(null)
  expect((await send(held))?.status).toBe(200)
  expect(await countIn(first)).toBe((await eventsOf()).length)
})

it('what was left behind goes after a week; of a move that was broken off, nothing', async () => {
  await move('second')
  const { db } = connect(addresses.first), age = (gone: string) =>
    first.query(`update workshop set gone_at = ${gone} where id = $1`, [workshop])
  const there = await countIn(second)
  await age('null')
  await tidy(db)
  expect(await countIn(first)).toBe(there)
  await age(`now() - interval '8 days'`)
  await tidy(db)
  await db.destroy()
  expect([await countIn(first), await countIn(first, 'plan'), await countIn(second)]).toEqual([0, 0, there])
  await move(null)
  expect(await countIn(first)).toBe(there)
})

it('what was brought in and what is carried away is of the place where the records are', async () => {
  await move('second')
  const { body: job } = await tell('POST', 'import', {
    kind: 'bags', file: 'bags.csv', rows: [{ name: 'A bag of the second house', classId: 'casting-plaster', note: '' }],
  })
  const state = async () => ((await tell('GET', 'imports')).body as unknown as { id: string, state: string }[])
    .find(j => j.id === job.id)?.state
  await expect.poll(state, { timeout: 60_000 }).toBe('done')
  expect(await countIn(second, 'import_thing')).toBe(1)
  const archive = await fetch(`${product.url}/api/archive`, { headers: { cookie } })
  expect(archive.status).toBe(200)
  expect((await archive.arrayBuffer()).byteLength).toBeGreaterThan(1000)
})

it('while a home is away its own workshops wait, and nobody else', async () => {
  const { db } = connect(addresses.first)
  await migrateToLatest(db)
  const other = await createWithOwner(db, { name: 'Other', units: METRIC, clock: REAL_TIME, demo: false }, {
    name: 'O', email: 'other@example.org', passwordHash: (await first.query('select password_hash from account')).rows[0].password_hash,
  })
  await db.destroy()
  const elsewhere = await ask(product, 'POST', 'session', { body: { email: 'other@example.org', password: PASSWORD } })
  const admin = await connected(cluster.url('postgres'))
  await second.end()
  await admin.query('alter database home_second allow_connections false')
  await admin.query(`select pg_terminate_backend(pid) from pg_stat_activity where datname = 'home_second'`)
  const held = note('while it is away')
  expect((await send(held))?.status).toBe(503)
  expect((await ask(product, 'GET', 'plans', { cookie: elsewhere.cookie })).status).toBe(200)
  await admin.query('alter database home_second allow_connections true')
  await admin.end()
  await expect.poll(async () => (await send(held))?.status).toBe(200)
  second = await connected(addresses.homes.second!)
  expect(other.workshopId).not.toBe(workshop)
})

it.each([
  ['there-already', 'second'], ['no-such-home', 'third'],
])('is refused: %s', async (code, home) => {
  await expect(move(home)).rejects.toMatchObject({ code })
})
