import { createHash, randomUUID } from 'node:crypto'
import { sql } from 'kysely'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { METRIC } from '~core/units/units'
import { REAL_TIME } from '~contract/clock'
import { pathOf } from '~contract/path'
import { ROUTES } from '~contract/routes'
import type { Contract } from '~contract/routes/route'
import { createAccount } from '../../server/store/accounts'
import { addPerson } from '../../server/store/people'
import { connect, type Db } from '../../server/store/open'
import { beginMesh, finishMesh, putPart } from '../../server/store/meshes'
import { addSeats, openClass } from '../../server/store/classrooms'
import { makeDevice } from '../../server/store/devices'
import { makeLink } from '../../server/store/links'
import { NO_IMPORT_COUNTS } from '../../contract/import-state'
import { beginImport, endImport } from '../../server/store/imports'
import { saveItem, savePlan, worldOf } from '../../server/store/library'
import { keepPhoto } from '../../server/store/photos'
import { within, type Scope } from '../../server/store/scope'
import { makeTicket } from '../../server/store/tickets'
import { createWithOwner } from '../../server/store/workshops'
import { startPour } from '../../server/store/recording'
import { beginSession } from '../../server/store/sessions'
import { freezeRun } from '../../core/plan/run'
import { BUCKETS, makeIds, MOULDS, planOf, WISHES } from '../../demo/saltmarsh'
import { chance } from '../../demo/random'
import { ask, ids as ours, member, overHttp, owner, plan, product, viewer } from './over-http'

/** What one workshop may do to another: nothing. Asked over every route there is, as everybody there is. */
overHttp()

const SECRET = 'Nobody elses', theirs = makeIds(chance(77))
let db: Db, there: Scope, held: Record<string, string>
const cookies = () => ({ stranger: '', viewer, member, owner })

/** Another workshop with one of everything. */
async function settle(): Promise<void> {
  const made = await createWithOwner(db, { name: SECRET, units: METRIC, clock: REAL_TIME, demo: false }, {
    name: SECRET, email: 'theirs@example.org', passwordHash: 'x',
  })
  there = within(db, made.workshopId)
  await saveItem(there, 'mould', theirs.moulds.lantern, { ...MOULDS.lantern, name: SECRET }, 0)
  await saveItem(there, 'bucket', theirs.buckets.bowl, { ...BUCKETS.bowl, name: SECRET }, 0)
  const wish = { ...planOf(theirs, WISHES.lanterns), name: SECRET, bag: undefined }, planId = randomUUID()
  await savePlan(there, planId, wish, 0)
  const frozen = freezeRun(wish, await worldOf(there, wish, Date.now()))
  if (!frozen.ok) throw new Error('The plan cannot be poured.')
  const pour = randomUUID(), mesh = randomUUID(), photo = randomUUID(), view = randomUUID()
  await startPour(there, {
    id: pour, run: frozen.run, actor: made.personId, first: [{
      id: randomUUID(), version: 1, batch: 0, kind: 'stage', data: { stage: 'ready' }, happenedAt: Date.now(),
      recordedAt: Date.now(), device: 'd', deviceSeq: 1,
    }],
  })
  await beginMesh(there, mesh, { mould: theirs.moulds.lantern, name: SECRET, unit: 'mm', triangles: 4, parts: 1 })
  await putPart(there, mesh, 0, Buffer.from('solid'))
  await finishMesh(there, mesh)
  const picture = { bytes: Buffer.from('x'), width: 1, height: 1 }
  await keepPhoto(there, photo, { mould: theirs.moulds.lantern }, SECRET, picture)
  await there.insert('logbook_view', [{ id: view, name: SECRET, query: '{}' }] as never).execute()
  const session = await beginSession(db, made, { device: SECRET, place: '' })
  const { id: sessionId } = await there.select('session').select('id').executeTakeFirstOrThrow()
  const invited = await makeTicket(db, { kind: 'join', workshopId: there.workshopId, role: 'owner', name: SECRET })
  await makeLink(there, 'wall', SECRET)
  const device = await makeDevice(there, 'scale', SECRET)
  const job = randomUUID()
  await beginImport(there, { id: job, kind: 'bags', name: SECRET, by: made.personId })
  await endImport(there, job, 'done', NO_IMPORT_COUNTS)
  const classId = await openClass(there, db, made.personId, SECRET, 2)
  const [seat] = await addSeats(there, db, classId, [{ name: SECRET, token: 'x' }])
  const { id: linkId } = await there.select('link').select('id').executeTakeFirstOrThrow()
  const apprentice = await addPerson(there, {
    accountId: await createAccount(db, { email: 'apprentice@example.org', passwordHash: 'x' }),
    name: SECRET,
    role: 'member',
  })
  held = {
    plan: planId, pour, mesh, photo, view, session: sessionId, invitation: invited.id, link: linkId, person: apprentice,
    owner: made.personId, mould: theirs.moulds.lantern, bucket: theirs.buckets.bowl, workshop: there.workshopId,
    secret: session, device: device.id, import: job, class: classId,
    seat: seat!.id,
  }
}

/** All that the other workshop has, as one hash. */
async function everything(): Promise<string> {
  const hash = createHash('sha256'), { workshopId } = there
  const tables = await sql<{ name: string }>`
    select table_name as name from information_schema.columns
    where table_schema = 'public' and column_name = 'workshop_id' order by 1
  `.execute(db)
  for (const { name } of tables.rows) {
    const rows = await sql<{ text: string | null }>`
      select string_agg(t::text, E'\n' order by t::text) as text from ${sql.table(name)} t where workshop_id = ${workshopId}
    `.execute(db)
    hash.update(`${name}\n${rows.rows[0]?.text ?? ''}`)
  }
  const own = await sql<{ text: string }>`select t::text as text from workshop t where id = ${workshopId}`.execute(db)
  return hash.update(own.rows[0]!.text).digest('hex')
}

/** A body that each route takes, where it takes one, with the other workshop's ids in it. */
const BODIES: Readonly<Record<string, () => object>> = {
  'PUT session/workshop': () => ({ workshop: held.workshop }),
  'PATCH people/:id': () => ({ role: 'viewer', archived: true }),
  'PUT plans/:id': () => ({ plan: { ...plan(), fills: [{ mould: held.mould, count: 1 }], bucket: held.bucket }, revision: 1 }),
  'PUT library/:kind/:id': () => ({ body: { ...MOULDS.lantern, name: 'Taken' }, revision: 1 }),
  'POST pours': () => ({
    id: held.pour, plan: { ...plan(), fills: [{ mould: held.mould, count: 1 }] }, startedAt: Date.now(), device: 'd',
    deviceSeq: 1, eventId: randomUUID(),
  }),
  'POST pours/:id/events': () => ({ sentAt: Date.now(), events: [] }),
  'PUT meshes/:id': () => ({ mould: held.mould, name: 'x', unit: 'mm', triangles: 4, parts: 1 }),
  'PUT logbook/views/:id': () => ({ name: 'Taken', query: {} }),
}
/** These end the asker's own session, change their own account, take their whole file in, or never end. */
const LEFT_OUT = /^(DELETE session|POST session|POST owner|GET live|\w+ account(?!\/sessions\/)|POST archive|GET wall\/:token\/live|GET seat\/live)/
const routes = Object.entries(ROUTES as Record<string, Contract>).filter(([name]) => !LEFT_OUT.test(name))

async function tryAll(name: string, contract: Contract): Promise<void> {
  const [method, path] = name.split(' ') as [string, string]
  const named = Object.keys(contract.params?.shape ?? {})
  const choices = named.length === 0
    ? [{}]
    : Object.values(held).map(id => Object.fromEntries(named.map(n =>
        [n, n === 'kind' ? 'mould' : n === 'part' ? '0' : id] as const)))
  for (const [role, cookie] of Object.entries(cookies())) {
    for (const params of choices) {
      const at = pathOf(path, params, name === 'GET photos' ? { mould: held.mould } : undefined).replace(/^\/api\//, '')
      const answer = await ask(product, method, at, {
        cookie, ...contract.body && { body: BODIES[name]?.() ?? {} }, ...contract.takes && { body: 'x' },
      })
      const told = [name, role, answer.status]
      expect([...told, JSON.stringify(answer.body).includes(SECRET)]).toEqual([...told, false])
      expect([...told, answer.status < 500]).toEqual([...told, true])
      if (role === 'stranger' && contract.role !== 'anyone') expect(told).toEqual([name, role, 401])
      tries++
    }
  }
}
let tries = 0

describe('another workshop', () => {
  beforeAll(async () => {
    ;({ db } = connect(product.databaseUrl))
    await settle()
  })
  afterAll(() => db.destroy())

  it('is reached by no route and no role, whatever ids are known of it', async () => {
    const before = await everything()
    for (const [name, contract] of routes) await tryAll(name, contract)
    expect(await everything()).toBe(before)
    expect(tries).toBeGreaterThan(300)
  })

  it('of one’s own stays as it was, too: the tries were real ones', async () => {
    const answer = await ask(product, 'PUT', `library/mould/${ours.moulds.lantern}`, {
      cookie: member, body: { body: { ...MOULDS.lantern, name: 'Changed' }, revision: 1 },
    })
    expect(answer.status).toBe(200)
    await ask(product, 'PUT', `library/mould/${ours.moulds.lantern}`, { cookie: member, body: { body: MOULDS.lantern, revision: 2 } })
  })
})
