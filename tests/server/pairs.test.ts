import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { METRIC } from '~core/units/units'
import { freezeRun, type FrozenRun } from '~core/plan/run'
import { REAL_TIME } from '~contract/clock'
import { createAccount } from '../../server/store/accounts'
import { keepPhoto, dropPhoto } from '../../server/store/photos'
import { saveItem, savePlan, worldOf } from '../../server/store/library'
import { beginMesh, finishMesh, meshOfMould, putPart } from '../../server/store/meshes'
import type { Db } from '../../server/store/open'
import { addPerson, changePerson } from '../../server/store/people'
import { refuseBeyond, roomOf } from '../../server/store/room'
import { recordEvents, startPour } from '../../server/store/recording'
import { within, type Scope } from '../../server/store/scope'
import { beginSession, endSessions, forgetDevices, knowDevice, newToken } from '../../server/store/sessions'
import { makeTicket, useUp } from '../../server/store/tickets'
import { tidy } from '../../server/store/tidying'
import { changeWorkshop, createWithOwner } from '../../server/store/workshops'
import { BUCKETS, makeIds, MOULDS, planOf, WISHES } from '../../demo/saltmarsh'
import { chance } from '../../demo/random'
import { freshDatabase } from './fresh'

/** Everything that writes, beside everything that writes: nobody waits for whoever waits for them. */
const ids = makeIds(chance(3))
let db: Db, close: () => Promise<void>, scope: Scope, run: FrozenRun, pour: string, person: string, accountId: string
const stage = () => ({
  id: randomUUID(), version: 1 as const, batch: 0, kind: 'stage' as const, data: { stage: 'weigh' as const }, happenedAt: Date.now(),
  recordedAt: Date.now(), device: 'd', deviceSeq: 1,
})
const plan = { ...planOf(ids, WISHES.lanterns), bag: undefined }
const picture = () => ({ bytes: Buffer.from(randomUUID()), width: 1, height: 1 })

/** A model that arrived and waits to be finished. */
async function received(): Promise<string> {
  const id = randomUUID()
  await beginMesh(scope, id, { mould: ids.moulds.lantern, name: 'M', unit: 'mm', triangles: 4, parts: 1 })
  await putPart(scope, id, 0, Buffer.from(id))
  return id
}

/** Each is made ready first; what it then does meets the other. */
const WRITERS: Readonly<Record<string, () => Promise<() => Promise<unknown>>>> = {
  'a mould is saved': async () => () => saveItem(scope, 'mould', ids.moulds.lantern, MOULDS.lantern, 1).catch(stale),
  'a plan is saved': async () => () => savePlan(scope, randomUUID(), plan, 0),
  'a pour begins': async () => () => startPour(scope, { id: randomUUID(), run, first: [stage()], actor: person }),
  'entries arrive': async () => () => recordEvents(scope, pour, [stage(), stage()], person),
  'a model is finished': async () => {
    const id = await received()
    return () => finishMesh(scope, id)
  },
  'a model begins': async () => received,
  'a photo is kept and goes': async () => async () => {
    const id = randomUUID()
    await keepPhoto(scope, id, { mould: ids.moulds.lantern }, '', picture())
    await dropPhoto(scope, id)
  },
  'a role changes': async () => () => changePerson(scope, person, { role: 'member' }, 'me'),
  'somebody is taken out and comes back': async () => async () => {
    await changePerson(scope, person, { archived: true }, 'me')
    await addPerson(scope, { accountId, name: 'P', role: 'member' })
  },
  'a session begins and ends': async () => async () => {
    await beginSession(db, { accountId, workshopId: scope.workshopId, personId: person }, { device: '', place: '' })
    await knowDevice(db, newToken(), accountId)
    await endSessions(db, { accountId })
    await forgetDevices(db, accountId)
  },
  'an invitation is used': async () => {
    const { id } = await makeTicket(db, { kind: 'reset', accountId })
    return () => useUp(db, id)
  },
  'the workshop changes': async () => () => changeWorkshop(db, scope.workshopId, { name: 'N' }),
  'it is tidied': async () => () => tidy(db),
}
/** Somebody else was quicker: that is an answer. */
function stale(error: unknown): void {
  if ((error as { code?: string }).code !== 'stale-item') throw error
}
const names = Object.keys(WRITERS)
const pairs = names.flatMap((one, i) => names.slice(i).map(other => [one, other] as const))

describe('two at once', () => {
  beforeAll(async () => {
    ;({ db, close } = await freshDatabase())
    const { workshopId } = await createWithOwner(db, { name: 'Pairs', units: METRIC, clock: REAL_TIME, demo: false }, {
      name: 'O', email: 'o@example.org', passwordHash: 'x',
    })
    scope = within(db, workshopId)
    await saveItem(scope, 'mould', ids.moulds.lantern, MOULDS.lantern, 0)
    await saveItem(scope, 'bucket', ids.buckets.bowl, BUCKETS.bowl, 0)
    const frozen = freezeRun(plan, await worldOf(scope, plan, Date.now()))
    if (!frozen.ok) throw new Error('The plan cannot be poured.')
    run = frozen.run
    accountId = await createAccount(db, { email: 'p@example.org', passwordHash: 'x' })
    person = await addPerson(scope, { accountId, name: 'P', role: 'member' })
    pour = randomUUID()
    await startPour(scope, { id: pour, run, first: [stage()], actor: person })
  })
  afterAll(() => close())

  it.each(pairs)('%s, and %s', async (one, other) => {
    for (let round = 0; round < 4; round++) {
      const both = [await WRITERS[one]!(), await WRITERS[other]!()]
      await Promise.all(both.map(act => act()))
    }
  })

  it('no more is kept than a workshop may, and it is said in words', async () => {
    await keepPhoto(scope, randomUUID(), { mould: ids.moulds.lantern }, '', picture())
    const { photos } = await roomOf(scope)
    expect(photos).toEqual({ bytes: 36, most: 4e9 })
    await refuseBeyond(scope, 'photos', 64, 100)
    await expect(refuseBeyond(scope, 'photos', 65, 100)).rejects.toThrow(/^This workshop keeps .+ GB of photos/)
  })

  it('of two models finished at once both are taken, and one of them stands', async () => {
    for (let round = 0; round < 10; round++) {
      const [a, b] = [await received(), await received()]
      const done = await Promise.all([finishMesh(scope, a), finishMesh(scope, b)])
      expect(done.map(d => d?.id)).toEqual([a, b])
      expect([a, b]).toContain((await meshOfMould(scope, ids.moulds.lantern))!.id)
      expect(await scope.select('mesh').select('id').where('sha256', 'is not', null).execute()).toHaveLength(1)
    }
  })
})
