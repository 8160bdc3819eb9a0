import { randomUUID } from 'node:crypto'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import pg from 'pg'
import { sql } from 'kysely'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { debianPackages } from '../../bin/setup.mjs'
import { startSeveral } from '../../bin/several/several.mjs'
import { FREE } from '../../server/auth/guessing'
import { connect } from '../../server/store/open'
import { BUCKETS, MOULDS } from '../../demo/saltmarsh'
import { goesOn, note, watching, writing } from './hands'
import { ask, ids, PASSWORD, plan, type Answer } from './over-http'
import type { Product } from '../product'

/** Two servers of the product before three databases: what one knows the other knows, and one of each may go. */
const folder = mkdtempSync(join(tmpdir(), 'ripples-several-'))
let several: Awaited<ReturnType<typeof startSeveral>>, cookie = '', pour = ''
const at = (url: string) => ({ url }) as Product
const tell = (url: string, method: string, path: string, body?: object) => ask(at(url), method, path, { cookie, body })

const send = (url: string, event: object): Promise<Answer | undefined> =>
  tell(url, 'POST', `pours/${pour}/events`, { sentAt: Date.now(), after: 0, events: [event] }).catch(() => undefined)
const kept = async () =>
  new Set(((await tell(several.url, 'GET', `pours/${pour}`)).body.events as { id: string }[]).map(e => e.id))

beforeAll(async () => {
  debianPackages({ chromium: false, several: true })
  several = await startSeveral(folder)
  const owner = { workshop: 'Several', name: 'First', email: 'first@example.org', password: PASSWORD }
  cookie = (await ask(at(several.url), 'POST', 'owner', { body: owner })).cookie
  await tell(several.url, 'PUT', `library/mould/${ids.moulds.lantern}`, { body: MOULDS.lantern, revision: 0 })
  await tell(several.url, 'PUT', `library/bucket/${ids.buckets.bowl}`, { body: BUCKETS.bowl, revision: 0 })
  pour = randomUUID()
  const begun = { id: pour, plan: plan(), startedAt: Date.now(), device: 'd', deviceSeq: 1, eventId: randomUUID() }
  expect((await tell(several.url, 'POST', 'pours', begun)).status).toBe(200)
}, 600_000)
afterAll(async () => {
  await several?.stop()
  rmSync(folder, { recursive: true, force: true })
})

const watch = (url: string) => watching(url, cookie)
const write = (hands: number) => writing(hands, event => send(several.url, event))

it('one session, one count of guesses and one live word are the same on all servers', async () => {
  const [one, other] = several.apps as [string, string], page = watch(other)
  expect((await tell(other, 'GET', 'plans')).status).toBe(200)
  await expect.poll(page.heard).not.toBe('')
  const event = note('heard elsewhere')
  expect((await send(one, event))?.status).toBe(200)
  await expect.poll(page.heard).toContain(event.id)
  await page.leave()
  const guess = async (url: string) => (await ask(at(url), 'POST', 'session', { body: { email: 'first@example.org', password: 'wrong one' } })).status
  for (let n = 0; n < FREE.account; n++) expect(await guess(n % 2 ? one : other)).toBe(401)
  await guess(one)
  expect(await guess(other)).toBe(429)
})

it('the logbook is read from the copy that keeps in step', async () => {
  expect((await tell(several.apps[0]!, 'GET', 'logbook/pours')).status).toBe(200)
  const copy = (await several.databases()).find(d => d.state === 'in step')!, url = new URL(several.databaseUrl)
  url.port = String(copy.port)
  const client = new pg.Client({ connectionString: url.href })
  await client.connect()
  const { rows } = await client.query('select pg_is_in_recovery() as copy, count(*)::int as here from pg_stat_activity where usename = current_user')
  await client.end()
  expect(rows[0].copy).toBe(true)
  expect(rows[0].here).toBeGreaterThan(1)
})

it('a server of the product that is killed is not missed', async () => {
  const { told, stop } = write(4)
  await goesOn(told)
  await several.kill('app1')
  await goesOn(told)
  several.again('app1')
  await goesOn(told)
  await stop()
  const there = await kept()
  expect(told.filter(id => !there.has(id))).toEqual([])
})

it('the database that is written to is killed under writers: nothing acknowledged is lost, and all goes on by itself', async () => {
  const page = watch(several.url), { told, stop } = write(4)
  await goesOn(told)
  const primary = (await several.databases()).find(d => d.role === 'primary')!.name
  await several.kill(primary)
  await goesOn(told)
  await stop()
  const there = await kept(), after = note('after all that')
  expect(told.filter(id => !there.has(id))).toEqual([])
  expect((await several.databases()).find(d => d.role === 'primary')!.name).not.toBe(primary)
  await expect.poll(async () => {
    await send(several.url, after)
    return page.heard()
  }, { timeout: 120_000 }).toContain(after.id)
  await page.leave()
  // It comes back as one that follows.
  several.again(primary)
  await expect.poll(async () => (await several.databases()).find(d => d.name === primary)!.role, { timeout: 240_000 }).toBe('standby')
}, 900_000)

/** What waits for a standby. */
async function waiting(that = '.') {
  const client = new pg.Client({ connectionString: several.databaseUrl })
  await client.connect()
  const all = `select pid from pg_stat_activity where wait_event = 'SyncRep' and query ~ $1`
  return client.query<{ pid: number }>(all, [that]).finally(() => client.end())
}

/** Whoever looks after the database ends what waits for a standby, as soon as something does. */
async function endWaiting(): Promise<void> {
  await expect.poll(async () => (await waiting('alone')).rowCount, { timeout: 60_000 }).toBe(1)
  const { rows } = await waiting('alone')
  const client = new pg.Client({ connectionString: several.databaseUrl })
  await client.connect()
  await client.query('select pg_cancel_backend($1)', [rows[0]!.pid])
  await client.end()
}

it('with both standbys gone whoever writes waits, and whoever reads is answered; back, what was told is there', async () => {
  await several.ready()
  const standbys = (await several.databases()).filter(d => d.role === 'standby').map(d => d.name)
  for (const name of standbys) await several.kill(name)
  // More at once than the servers have connections that write.
  const put = (id: string) => tell(several.url, 'PUT', `library/bucket/${id}`, { body: BUCKETS.bowl, revision: 0 })
  const buckets = Array.from({ length: 40 }, () => randomUUID())
  const asked = buckets.map(id => put(id).catch(() => undefined))
  await expect.poll(async () => (await waiting()).rowCount, { timeout: 60_000 }).toBeGreaterThan(8)
  for (const app of several.apps) {
    for (const path of ['plans', 'session', `pours/${pour}`, 'library/mould'])
      expect((await tell(app, 'GET', path)).status, path).toBe(200)
  }
  expect((await waiting()).rowCount).toBeGreaterThan(8)
  for (const name of standbys) several.again(name)
  await several.ready()
  const answers = await Promise.all(asked)
  const there = ((await tell(several.url, 'GET', 'library/bucket')).body as unknown as { id: string }[]).map(b => b.id)
  expect(answers.some(a => a?.status === 200)).toBe(true)
  expect(buckets.filter((id, i) => answers[i]?.status === 200 && !there.includes(id))).toEqual([])
}, 900_000)

it('what only one database has is not acknowledged, though somebody ends the wait for another', async () => {
  await several.ready()
  const standbys = (await several.databases()).filter(d => d.role === 'standby').map(d => d.name)
  for (const name of standbys) await several.kill(name)
  const { db } = connect(several.databaseUrl)
  const asked = sql`insert into guess (key, tries, free_at, tried_at) values ('alone', 0, now(), now())`.execute(db)
    .then(() => 'acknowledged', (error: { code?: string }) => error.code)
  await endWaiting()
  expect(await asked).toBe('08007')
  for (const name of standbys) several.again(name)
  await several.ready()
  await db.destroy()
  const { told, stop } = write(1)
  await goesOn(told)
  await stop()
}, 900_000)
