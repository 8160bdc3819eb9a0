import { createHash, randomUUID } from 'node:crypto'
import sharp from 'sharp'
import { afterAll, beforeAll, expect, inject, it } from 'vitest'
import { chance } from '../../demo/random'
import { BUCKETS, makeIds, MOULDS, planOf, WISHES } from '../../demo/saltmarsh'
import { launch, type Product } from '../product'
import { campaign } from '../campaign'

/**
 * A server killed in the middle of writing: things of the library, plans, photos, models and entries of a pour. What it
 * acknowledged is there, and nothing is half there.
 */
const { seed, of: kills } = campaign(200)
let product: Product, cookie = ''
const dice = chance(seed), ids = makeIds(chance(5)), pick = (n: number) => Math.floor(dice.next() * n)

let answered = 0
async function ask(method: string, path: string, body?: unknown, type = 'application/json'): Promise<Response> {
  const answer = await fetch(`${product.url}/api/${path}`, {
    method,
    headers: { origin: product.url, cookie, ...body !== undefined && { 'content-type': type } },
    body: body === undefined || body instanceof Uint8Array ? body as BodyInit | undefined : JSON.stringify(body),
  })
  answered++
  return answer
}
/** Another picture each time, all of them whole. */
function jpeg(n: number): Promise<Buffer> {
  const background = { r: n % 256, g: (n >> 8) % 256, b: 9 }
  return sharp({ create: { width: 7, height: 5, channels: 3, background } }).jpeg().toBuffer()
}

beforeAll(async () => {
  product = await launch(inject('databaseBase'), { demo: false })
  const owner = { workshop: 'Killed', name: 'K', email: 'k@example.org', password: 'a long enough word' }
  cookie = (await ask('POST', 'owner', owner)).headers.getSetCookie().map(c => c.split(';')[0]).join('; ')
  await ask('PUT', `library/mould/${ids.moulds.lantern}`, { body: MOULDS.lantern, revision: 0 })
  await ask('PUT', `library/bucket/${ids.buckets.bowl}`, { body: BUCKETS.bowl, revision: 0 })
})
afterAll(() => product?.kill())

const plan = { ...planOf(ids, WISHES.lanterns), bag: undefined }
/** What was acknowledged: of things the last word and its revision, of the rest that it is there. */
const things = new Map<string, { word: string, revision: number }>(), photos = new Map<string, string>()
const models = new Map<string, string>(), entries = new Map<string, Set<string>>()
let word = 0, order = 0

async function writeThing(): Promise<void> {
  const isPlan = dice.next() < 0.5, known = [...things.keys()].filter(k => k.startsWith(isPlan ? 'plans' : 'library'))
  const path = known.length > 0 && dice.next() < (known.length > 40 ? 1 : 0.7)
    ? known[pick(known.length)]!
    : `${isPlan ? 'plans' : 'library/bucket'}/${randomUUID()}`
  const name = `w${++word}`, before = things.get(path)
  const body = isPlan ? { plan: { ...plan, name } } : { body: { ...BUCKETS.bowl, name } }
  const answer = await ask('PUT', path, { ...body, revision: before?.revision ?? 0 })
  if (answer.ok) things.set(path, { word: name, revision: (await answer.json() as { revision: number }).revision })
  // What was killed on its way may be there: the next word begins a thing of its own.
  else if (answer.status === 409) things.delete(path)
}
async function writePhoto(): Promise<void> {
  // Forty to a mould at most.
  const id = randomUUID(), mould = [ids.moulds.lantern, ...models.keys()].at(-1 - pick(Math.min(5, 1 + models.size)))!
  const answer = await ask('PUT', `photos/${id}?mould=${mould}`, await jpeg(++word), 'image/jpeg')
  if (answer.ok) photos.set(id, mould)
}
async function writeModel(): Promise<void> {
  const mould = randomUUID(), id = randomUUID(), parts = [0, 1, 2].map(i => new Uint8Array(2000).fill(++word + i))
  await ask('PUT', `library/mould/${mould}`, { body: MOULDS.lantern, revision: 0 })
  await ask('PUT', `meshes/${id}`, { mould, name: 'm', unit: 'mm', triangles: 10, parts: 3 })
  for (const [i, part] of parts.entries()) await ask('PUT', `meshes/${id}/parts/${i}`, part, 'application/octet-stream')
  const hash = createHash('sha256')
  for (const part of parts) hash.update(part)
  const sha256 = hash.digest('hex'), answer = await ask('POST', `meshes/${id}/done`, { sha256 })
  if (answer.ok) models.set(mould, sha256)
}
async function writeEntries(): Promise<void> {
  const at = Date.now(), known = [...entries.keys()], device = { device: 'd', deviceSeq: ++order }
  if (known.length === 0 || (known.length < 40 && dice.next() < 0.2)) {
    const id = randomUUID(), eventId = randomUUID()
    const answer = await ask('POST', 'pours', { id, plan, startedAt: at, eventId, ...device })
    if (answer.ok) entries.set(id, new Set([eventId]))
    return
  }
  const pour = known[pick(known.length)]!
  const events = [1, 2, 3].map(n => ({
    id: randomUUID(), kind: 'note', data: { text: `n${n}` }, version: 2, happenedAt: at, recordedAt: at, ...device,
  }))
  const answer = await ask('POST', `pours/${pour}/events`, { sentAt: at, after: 0, events })
  if (answer.ok) for (const e of events) entries.get(pour)!.add(e.id)
}
const WORK = [writeThing, writeThing, writePhoto, writeModel, writeEntries, writeEntries]

/** Everything that was acknowledged, as the server has it now. */
async function expectAllThere(): Promise<void> {
  type Row = { id: string, revision: number, plan?: { name: string }, body?: { name: string } }
  const list = async (path: string) => await (await ask('GET', path)).json() as Row[]
  const named = (path: string, { id, revision, plan: p, body }: Row) =>
    [`${path}/${id}`, { word: (p ?? body)!.name, revision }] as const
  const now = new Map<string, { readonly word: string, readonly revision: number }>([
    ...(await list('plans')).map(p => named('plans', p)),
    ...(await list('library/bucket')).map(b => named('library/bucket', b)),
  ])
  for (const [path, told] of things) {
    const there = now.get(path)
    expect(there, path).toBeDefined()
    // A later word that was killed on its way may have been taken; an earlier one may not stand.
    expect(there!.revision).toBeGreaterThanOrEqual(told.revision)
    if (there!.revision === told.revision) expect(there!.word).toBe(told.word)
    things.set(path, there!)
  }
  for (const mould of new Set(photos.values())) {
    const pictures = new Set((await list(`photos?mould=${mould}`)).map(p => p.id))
    for (const [id, of] of photos) if (of === mould) expect(pictures).toContain(id)
    for (const id of pictures) expect((await ask('GET', `photos/${id}`)).status).toBe(200)
  }
  for (const mould of (await list('library/mould')).map(m => m.id)) {
    const answer = await ask('GET', `meshes?mould=${mould}`)
    if (!answer.ok) expect(models.has(mould)).toBe(false)
    else expect((await answer.json() as { bytes: number, parts: number })).toMatchObject({ bytes: 6000, parts: 3 })
  }
  for (const [pour, told] of entries) {
    const { events } = await (await ask('GET', `pours/${pour}`)).json() as { events: { id: string, data: { text?: string } }[] }
    const there = events.map(e => e.id)
    expect(new Set(there).size).toBe(there.length)
    for (const id of told) expect(there).toContain(id)
    // Sent together, there together.
    expect(events.filter(e => e.data.text).length % 3).toBe(0)
  }
}

it(`${kills} kills in the middle of writing (seed ${seed}): what was acknowledged is there, nothing is half there`, async () => {
  for (let kill = 0; kill < kills; kill++) {
    let over = false
    const hands = Array.from({ length: 4 }, async () => {
      while (!over) await WORK[pick(WORK.length)]!().catch(() => {})
    })
    // Counted in answers and not in seconds, so that a slow machine is killed in the middle of as much.
    const enough = answered + 20 + pick(60)
    await expect.poll(() => answered, { interval: 5 }).toBeGreaterThan(enough)
    await product.kill()
    over = true
    await Promise.all(hands)
    await product.start()
    await expectAllThere()
  }
  const count = { things: things.size, photos: photos.size, models: models.size, pours: entries.size }
  console.info(JSON.stringify(count))
  for (const n of Object.values(count)) expect(n, JSON.stringify(count)).toBeGreaterThan(0)
}, 120_000 + kills * 60_000)
