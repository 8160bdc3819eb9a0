import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest'
import { taughtBag } from '../../core/forecast/observations'
import { castsPerBatch, freezeRun, type FrozenRun } from '../../core/plan/run'
import type { Plan, PlanWorld } from '../../core/plan/types'
import type { PourAnswer } from '../../contract/pour'
import type { SavedPlan } from '../../contract/plan'
import type { LibraryItem } from '../../contract/library'
import { launch, type Product } from '../product'

/** Pours that a browser began without asking, as they arrive later. */
let product: Product, cookie = '', plan: Plan, planId: string, world: PlanWorld, run: FrozenRun
const HOUR = 3_600_000

type Answer<T> = { status: number, body: T & { data?: { sentence: string } } }
async function ask<T>(method: string, path: string, body?: unknown): Promise<Answer<T>> {
  const response = await fetch(`${product.url}/api/${path}`, {
    method,
    headers: { 'origin': product.url, 'content-type': 'application/json', cookie },
    body: body === undefined ? undefined : JSON.stringify(body),
  })
  return { status: response.status, body: await response.json() as T & { data?: { sentence: string } } }
}
beforeAll(async () => {
  product = await launch(inject('databaseBase'), { demo: true })
  const entered = await fetch(`${product.url}/api/demo-entrance`, { method: 'POST', headers: { origin: product.url } })
  cookie = entered.headers.getSetCookie().map(c => c.split(';')[0]).join('; ')
  const saved = (await ask<SavedPlan[]>('GET', 'plans')).body.find(p => p.plan.name === 'Six lantern bases')!
  ;({ plan, id: planId } = saved)
  const [moulds, buckets] = await Promise.all(['mould', 'bucket'].map(async kind =>
    (await ask<LibraryItem[]>('GET', `library/${kind}`)).body))
  const facts = (item: LibraryItem) => ({ ...item.body, id: item.id }) as never
  plan = { ...plan, bag: undefined }
  world = {
    moulds: plan.fills.map(f => facts(moulds!.find(m => m.id === f.mould)!)),
    bucket: facts(buckets!.find(b => b.id === plan.bucket)!),
  }
  const frozen = freezeRun(plan, world)
  if (!frozen.ok) throw new Error('refused')
  run = frozen.run
})
afterAll(() => product?.kill())

const begun = (change: object = {}) => ({
  id: randomUUID(), planId, plan, startedAt: Date.now() - 5 * HOUR, sentAt: Date.now(), eventId: randomUUID(), device: 'd',
  deviceSeq: 1, frozen: { world, casts: castsPerBatch(run) }, ...change,
})

describe('a pour that was begun in a browser', () => {
  it('is worked out again and stands as it was begun there, when it was begun there', async () => {
    const start = begun(), { status, body } = await ask<PourAnswer>('POST', 'pours', start)
    expect(status).toBe(200)
    expect(body.run).toEqual(JSON.parse(JSON.stringify(run)))
    expect(body.events.map(e => [e.id, e.happenedAt, e.deviceSeq])).toEqual([[start.eventId, start.startedAt, 1]])
    // Sent again, because the answer was lost: the same pour.
    const again = await ask<PourAnswer>('POST', 'pours', start)
    expect(again.body.events).toEqual(body.events)
  })

  it('is divided by what the browser knew of the bag, to the last figure', async () => {
    const told = { mean: 0.5, sd: 0.08, model: run.modelVersion, character: {
      precision: [160, 20, 30, 5, 4, 40] as const, pull: [90, 12, 25] as const,
    } }
    const sack = { id: randomUUID(), name: 'Fast sack', classId: plan.classId, uncertain: false, note: '' },
      bag = taughtBag(sack, Array(6).fill(told))
    const many = { ...plan, bag: bag.id, fills: plan.fills.map(f => ({ ...f, count: 12 })) }
    const frozen = freezeRun(many, { ...world, bag })
    if (!frozen.ok) throw new Error('refused')
    // By its class alone it would have more time.
    expect(frozen.run.moments).not.toEqual(run.moments)
    const as = { world: frozen.run.world, casts: castsPerBatch(frozen.run) }
    const start = begun({ plan: many, planId: undefined, frozen: as })
    const { status, body } = await ask<PourAnswer>('POST', 'pours', start)
    expect([status, body.run]).toEqual([200, JSON.parse(JSON.stringify(frozen.run))])
  })

  it('keeps the moulds it had, whatever became of them since', async () => {
    const changed = { ...world, moulds: world.moulds.map(m => ({ ...m, name: 'As it was in the field' })) }
    const { body } = await ask<PourAnswer>('POST', 'pours', begun({ frozen: { world: changed, casts: castsPerBatch(run) } }))
    expect(body.run.world.moulds[0]!.name).toBe('As it was in the field')
  })

  it('is refused in words when this version divides it otherwise, says what cannot be, or is past all bounds', async () => {
    const other = await ask('POST', 'pours', begun({ frozen: { world, casts: [...castsPerBatch(run), 3] } }))
    expect([other.status, other.body.data?.sentence]).toEqual([409, expect.stringMatching(/divided it into other batches/)])
    const empty = await ask('POST', 'pours', begun({ frozen: { world: { ...world, moulds: [] }, casts: [1] } }))
    expect(empty.status).toBe(422)
    const huge = { ...world, moulds: Array.from({ length: 201 }, () => ({ ...world.moulds[0]!, id: randomUUID() })) }
    expect((await ask('POST', 'pours', begun({ frozen: { world: huge, casts: [1] } }))).status).toBe(400)
    expect((await ask('POST', 'pours', begun({ frozen: { world, casts: Array(401).fill(1) } }))).status).toBe(400)
  })

  it('is not taken for whoever signed in meanwhile', async () => {
    const start = begun({ person: randomUUID() }), { status, body } = await ask('POST', 'pours', start)
    expect([status, body.data?.sentence]).toEqual([401, expect.stringMatching(/begun by someone else/)])
    expect((await ask('GET', `pours/${start.id}`)).status).toBe(404)
  })

  it('stands without its plan when the plan is not here', async () => {
    const { status, body } = await ask<PourAnswer>('POST', 'pours', begun({ planId: randomUUID() }))
    expect([status, body.planId]).toEqual([200, undefined])
  })
})
