import { createHash, randomUUID } from 'node:crypto'
import ICAL from 'ical.js'
import Papa from 'papaparse'
import { PDFDocument } from 'pdf-lib'
import pg from 'pg'
import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest'
import { BUCKETS, makeIds, MOULDS, planOf, WISHES } from '../../demo/saltmarsh'
import { chance } from '../../demo/random'
import { launch, type Product } from '../product'

/** The built server over HTTP: who may do what, what is refused and in which words. */
let product: Product, demo: Product
const PASSWORD = 'a long enough word'
const ids = makeIds(chance(5))

type Answer = {
  status: number
  body: { data?: { sentence?: string, field?: string } } & Record<string, unknown>
  cookie: string
}

async function ask(
  at: Product,
  method: string,
  path: string,
  { body, cookie = '', headers = {} }: { body?: unknown, cookie?: string, headers?: Record<string, string> } = {},
): Promise<Answer> {
  const response = await fetch(`${at.url}/api/${path}`, {
    method,
    headers: {
      'origin': at.url,
      'sec-fetch-site': 'same-origin',
      'content-type': 'application/json',
      cookie,
      ...headers,
    },
    body: body === undefined ? undefined : typeof body === 'string' ? body : JSON.stringify(body),
  })
  return {
    status: response.status,
    body: await response.json().catch(() => ({})) as Answer['body'],
    cookie: response.headers.getSetCookie().map(c => c.split(';')[0]).join('; '),
  }
}
const signIn = async (email: string, password = PASSWORD) =>
  ask(product, 'POST', 'session', { body: { email, password } })

let owner = '', member = '', viewer = ''

beforeAll(async () => {
  const base = inject('databaseBase')
  ;[product, demo] = await Promise.all([launch(base, { demo: false }), launch(base, { demo: true })])
  owner
    = (await ask(product, 'POST', 'owner', {
      body: { workshop: 'Ours', name: 'First', email: 'first@example.org', password: PASSWORD },
    })).cookie
  for (const role of ['member', 'viewer'])
    await ask(product, 'POST', 'people', {
      cookie: owner,
      body: { name: role, email: `${role}@example.org`, password: PASSWORD, role },
    })
  member = (await signIn('member@example.org')).cookie
  viewer = (await signIn('viewer@example.org')).cookie
  await ask(product, 'PUT', `library/mould/${ids.moulds.lantern}`, {
    cookie: member,
    body: { body: MOULDS.lantern, revision: 0 },
  })
  await ask(product, 'PUT', `library/bucket/${ids.buckets.bowl}`, {
    cookie: member,
    body: { body: BUCKETS.bowl, revision: 0 },
  })
})
afterAll(() => Promise.all([product?.kill(), demo?.kill()]))

const plan = () => ({ ...planOf(ids, WISHES.lanterns), bag: undefined })
const start = (cookie: string, body: object = {}) => {
  const id = randomUUID()
  return ask(product, 'POST', 'pours', {
    cookie,
    body: { id, plan: plan(), startedAt: Date.now(), device: 'd', deviceSeq: 1, eventId: randomUUID(), ...body },
  })
}
const stage = (name: string) => ({
  id: randomUUID(),
  version: 1,
  batch: 0,
  kind: 'stage',
  data: { stage: name },
  happenedAt: Date.now(),
  recordedAt: Date.now(),
  device: 'd',
  deviceSeq: 2,
})

describe('the first start', () => {
  it('lets one owner in and shuts', async () => {
    const second = await ask(product, 'POST', 'owner', {
      body: { workshop: 'Mine', name: 'Second', email: 'second@example.org', password: PASSWORD },
    })
    expect([second.status, second.body.data?.sentence]).toEqual([
      409,
      'This workshop already has its owner. Sign in, or ask them to add you.',
    ])
  })

  it('has no demo door and no clock to turn outside the demo', async () => {
    expect((await ask(product, 'POST', 'demo-entrance')).status).toBe(404)
    expect((await ask(product, 'POST', 'clock', { cookie: owner, body: { rate: 60 } })).status).toBe(404)
    expect((await ask(demo, 'POST', 'demo-entrance')).status).toBe(200)
  })
})

describe('sessions', () => {
  it('the cookie is sealed, http-only and same-site, and says nothing readable', async () => {
    const response = await fetch(`${product.url}/api/session`, {
      method: 'POST',
      headers: { 'origin': product.url, 'content-type': 'application/json' },
      body: JSON.stringify({ email: 'first@example.org', password: PASSWORD }),
    })
    const cookie = response.headers.getSetCookie().at(-1)!
    expect(cookie).toMatch(/HttpOnly/i)
    expect(cookie).toMatch(/SameSite=Lax/i)
    expect(Buffer.from(cookie.split('=')[1]!.split(';')[0]!, 'base64').toString('latin1')).not.toContain('first@')
  })

  it('a wrong address and a wrong password read the same', async () => {
    const [a, b] = [await signIn('nobody@example.org'), await signIn('first@example.org', 'not the password')]
    expect([a.status, a.body.data?.sentence]).toEqual([b.status, b.body.data?.sentence])
    expect(a.status).toBe(401)
  })

  it('too many tries have to wait, in words, even all at once', async () => {
    const tries = await Promise.all(Array.from({ length: 14 }, () => signIn('member@example.org', 'guess after guess')))
    expect(tries.filter(t => t.status === 401).length).toBeLessThanOrEqual(8)
    expect(tries.find(t => t.status === 429)?.body.data?.sentence).toMatch(/^Too many tries\. Wait \d+ min/)
    expect((await signIn('first@example.org')).status).toBe(200)
  })

  it('a person who was removed is out at once', async () => {
    const { body } = await ask(product, 'POST', 'people', {
      cookie: owner,
      body: { name: 'Brief', email: 'brief@example.org', password: PASSWORD, role: 'member' },
    })
    const { cookie } = await signIn('brief@example.org')
    expect((await ask(product, 'GET', 'plans', { cookie })).status).toBe(200)
    await ask(product, 'PATCH', `people/${body.id as string}`, { cookie: owner, body: { archived: true } })
    expect((await ask(product, 'GET', 'plans', { cookie })).status).toBe(401)
  })
})

describe('roles', () => {
  const id = randomUUID()
  it.each([
    ['GET', 'plans', undefined],
    ['GET', 'pours', undefined],
    ['GET', 'casts', undefined],
    ['GET', 'library/mould', undefined],
    ['GET', 'people', undefined],
    ['GET', 'live', undefined],
    ['GET', `pours/${id}`, undefined],
    ['POST', 'pours', {}],
    ['POST', `pours/${id}/events`, {}],
    ['PUT', `plans/${id}`, {}],
    ['DELETE', `plans/${id}`, undefined],
    ['PUT', `library/bag/${id}`, {}],
    ['DELETE', `library/bag/${id}`, undefined],
    ['GET', 'logbook/pours', undefined],
    ['GET', 'logbook/tallies', undefined],
    ['GET', 'logbook/set-times', undefined],
    ['GET', 'logbook/trials', undefined],
    ['GET', 'logbook/views', undefined],
    ['PUT', `logbook/views/${id}`, {}],
    ['GET', 'archive', undefined],
    ['POST', 'archive', {}],
    ['POST', 'import', {}],
    ['GET', `plans/${id}/sheet`, undefined],
    ['GET', `plans/${id}/labels`, undefined],
    ['POST', 'people', {}],
    ['PATCH', `people/${id}`, {}],
    ['PATCH', 'workshop', {}],
    ['POST', 'clock', {}],
  ])('%s %s needs a signed-in person', async (method, path, body) => {
    expect((await ask(product, method, path, { body })).status).toBe(401)
  })

  it('a viewer looks and changes nothing; a member does not decide who comes in', async () => {
    expect((await ask(product, 'GET', 'plans', { cookie: viewer })).status).toBe(200)
    for (
      const [method, path, body] of [['PUT', `plans/${id}`, { plan: plan(), revision: 0 }], [
        'POST',
        `pours/${id}/events`,
        { sentAt: 1, events: [] },
      ], ['DELETE', `library/mould/${ids.moulds.lantern}`]] as const
    ) {
      expect((await ask(product, method, path, { cookie: viewer, body })).status).toBe(403)
    }
    expect((await start(viewer)).status).toBe(403)
    expect(
      (await ask(product, 'POST', 'import', {
        cookie: viewer,
        body: { kind: 'bags', rows: [{ name: 'x', classId: 'casting-plaster', note: '' }] },
      })).status,
    ).toBe(403)
    // Everything that anybody wrote is for owners to carry away, and to bring in.
    for (const method of ['GET', 'POST'])
      expect((await ask(product, method, 'archive', { cookie: member })).status).toBe(403)
    expect(
      (await ask(product, 'POST', 'people', {
        cookie: member,
        body: { name: 'x', email: 'x@example.org', password: PASSWORD, role: 'owner' },
      })).status,
    ).toBe(403)
  })
})

describe('changes from elsewhere', () => {
  it.each([
    ['another site', { 'origin': 'https://elsewhere.example', 'sec-fetch-site': 'cross-site' }],
    ['a sister site', { 'sec-fetch-site': 'same-site' }],
    ['an unsaid origin', { 'origin': '', 'sec-fetch-site': '' }],
    ['a lying origin', { origin: 'http://127.0.0.1.elsewhere.example' }],
  ])('%s: not made', async (_, headers) => {
    const clean = Object.fromEntries(
      Object.entries({ 'origin': product.url, 'sec-fetch-site': 'same-origin', ...headers }).filter(([, v]) =>
        v !== '',
      ),
    )
    const response = await fetch(`${product.url}/api/plans/${randomUUID()}`, {
      method: 'PUT',
      headers: { ...clean, 'content-type': 'application/json', 'cookie': owner },
      body: JSON.stringify({ plan: plan(), revision: 0 }),
    })
    expect(response.status).toBe(403)
  })
})

describe('bad input', () => {
  it.each<[string, string, string, unknown, RegExp]>([
    ['no body', 'POST', 'session', undefined, /could not be read|did not arrive/],
    ['a body that is not JSON', 'POST', 'session', '{"email":', /did not arrive whole/],
    ['an address without @', 'POST', 'session', { email: 'first', password: 'x' }, /^Type an e-mail address/],
    ['an id that is none', 'PUT', 'plans/1', { plan: {}, revision: 0 }, /could not be read/],
    ['an unknown shelf of the library', 'GET', 'library/cake', undefined, /could not be read/],
    ['a negative number of casts', 'PUT', `plans/${randomUUID()}`, {
      plan: { ...plan(), fills: [{ mould: ids.moulds.lantern, count: -2 }] },
      revision: 0,
    }, /^At least one cast/],
    [
      'a ratio that is no number',
      'PUT',
      `plans/${randomUUID()}`,
      { plan: { ...plan(), ratio: 'half' }, revision: 0 },
      /^This must be a number/,
    ],
    ['a mould that holds nothing', 'PUT', `library/mould/${randomUUID()}`, {
      body: { ...MOULDS.lantern, volume: { value: 0, low: 0, high: 0 } },
      revision: 0,
    }, /^A mould holds more than nothing/],
    [
      'a short password',
      'POST',
      'people',
      { name: 'x', email: 'x@example.org', password: 'short', role: 'member' },
      /at least ten characters/,
    ],
  ])('%s gets a 4xx and a sentence', async (_, method, path, body, words) => {
    const answer = await ask(product, method, path, { cookie: owner, body })
    expect(answer.status).toBe(400)
    expect(answer.body.data?.sentence).toMatch(words)
  })

  it('an address that does not exist says so', async () => {
    expect(await ask(product, 'GET', 'nothing-here')).toMatchObject({
      status: 404,
      body: { data: { sentence: 'There is nothing at this address.' } },
    })
  })

  it('a plan that cannot be poured is refused with its field, and no pour is made', async () => {
    const before = (await ask(product, 'GET', 'pours', { cookie: owner })).body as unknown as unknown[]
    const answer = await start(member, { plan: { ...plan(), ratio: 0.1 } })
    expect([answer.status, answer.body.data?.field]).toEqual([422, 'ratio'])
    expect(answer.body.data?.sentence).toMatch(/binds 17\.3 parts of water/)
    expect((await ask(product, 'GET', 'pours', { cookie: owner })).body).toEqual(before)
  })
})

describe('what is told to machines that come by', () => {
  it('a description, and that there is nothing to be listed', async () => {
    const page = await (await fetch(product.url)).text()
    expect(page).toMatch(/<meta name="description" content="[^"]{20,160}">/)
    expect(page).toMatch(/<html\s+lang="en-GB"/)
    const robots = await fetch(`${product.url}/robots.txt`)
    expect([robots.status, robots.headers.get('content-type')]).toEqual([200, expect.stringContaining('text/plain')])
    expect(await robots.text()).toMatch(/^User-agent: \*\nDisallow: \/\n?$/)
  })
})

describe('a pour over HTTP', () => {
  it('starts, takes events once, and answers 404 for one it does not have', async () => {
    const made = await start(member)
    expect(made.status).toBe(200)
    const path = `pours/${made.body.id as string}/events`
    const events = [stage('weigh'), stage('sift')]
    const [first, again] = [
      await ask(product, 'POST', path, { cookie: member, body: { sentAt: Date.now(), events } }),
      await ask(product, 'POST', path, { cookie: member, body: { sentAt: Date.now(), events } }),
    ]
    const fates = (fate: string) => events.map(({ id }) => ({ id, fate }))
    expect(first.body).toMatchObject({ fates: fates('stored') })
    expect(again.body).toEqual({ ...first.body, fates: fates('known') })
    expect(first.body.events).toHaveLength(3)
    expect(
      (await ask(product, 'POST', `pours/${randomUUID()}/events`, {
        cookie: member,
        body: { sentAt: Date.now(), events },
      })).status,
    ).toBe(404)
    const odd = await ask(product, 'POST', path, {
      cookie: member,
      body: { sentAt: Date.now(), events: [{ ...stage('soak'), batch: 9 }, stage('soak')] },
    })
    expect(odd.status).toBe(200)
    expect((odd.body.fates as { fate: string }[]).map(f => f.fate)).toEqual(['refused', 'stored'])
  })

  it('what no database can hold is left out of a note, and numbers beyond it are refused, never a fault', async () => {
    const path = `pours/${(await start(member)).body.id as string}/events`
    const note = (text: string) => ({ ...stage('weigh'), kind: 'note', data: { text } })
    const events = [
      note('crack\u0000ed \uD83D'),
      { ...stage('weigh'), deviceSeq: 2 ** 31 },
      { ...stage('weigh'), happenedAt: 1e308 },
      { ...stage('weigh'), id: `\u0000${randomUUID()}` },
      note('x'.repeat(2001)),
    ]
    const { status, body } = await ask(product, 'POST', path, { cookie: member, body: { sentAt: Date.now(), events } })
    expect(status).toBe(200)
    expect((body.fates as { fate: string }[]).map(f => f.fate)).toEqual([
      'stored', 'refused', 'refused', 'stored', 'refused',
    ])
    expect((body.events as { data: { text?: string } }[]).map(e => e.data.text)).toContain('cracked')
    for (const odd of [`${path}?after=2147483648`, `${path}?after=1e400`, 'casts?since=1e308', 'pours/%00/events'])
      expect([odd, (await ask(product, 'GET', odd, { cookie: member })).status]).toEqual([odd, 400])
  })

  it('tells other browsers as it happens: ids, and the new entries where they are few', async () => {
    const control = new AbortController()
    const stream = await fetch(`${product.url}/api/live`, { headers: { cookie: viewer }, signal: control.signal })
    const reader = stream.body!.pipeThrough(new TextDecoderStream()).getReader()
    let heard = ''
    while (!heard.includes('hello')) heard += (await reader.read()).value
    const made = await start(member)
    while (!heard.includes(made.body.id as string)) heard += (await reader.read()).value
    expect(heard).not.toContain('Lantern')
    const note = (text: string) => ({ ...stage('weigh'), kind: 'note', data: { text }, id: randomUUID() })
    const send = (event: object) => ask(product, 'POST', `pours/${made.body.id as string}/events`, {
      cookie: member, body: { sentAt: Date.now(), events: [event] },
    })
    await send(note('short and sweet'))
    while (!heard.includes('short and sweet')) heard += (await reader.read()).value
    const last = Number(/"seq":(\d+)/.exec(heard.slice(heard.lastIndexOf('data:')))![1])
    await send(note('long '.repeat(390)))
    while (!heard.includes(`"after":${last}`)) heard += (await reader.read()).value
    expect(heard).not.toContain('long long')
    control.abort()
  })

  it('survives the server being killed: what was answered is there', async () => {
    const made = await start(member)
    await product.kill()
    await product.start()
    const again = await ask(product, 'GET', `pours/${made.body.id as string}`, { cookie: member })
    expect(again.body.run).toEqual(made.body.run)
  })
})

describe('models of moulds', () => {
  const bytes = (n: number, seed = 1) => Uint8Array.from({ length: n }, (_, i) => (i * 31 + seed) % 251)
  const put = (id: string, part: number, body: Uint8Array, cookie: string) =>
    fetch(`${product.url}/api/meshes/${id}/parts/${part}`, {
      method: 'PUT',
      headers: {
        'origin': product.url,
        'sec-fetch-site': 'same-origin',
        'content-type': 'application/octet-stream',
        cookie,
      },
      body: body as BodyInit,
    })
  const begin = (id: string, cookie: string, part = {}) =>
    ask(product, 'PUT', `meshes/${id}`, {
      cookie,
      body: { mould: ids.moulds.lantern, name: 'lantern.stl', unit: 'mm', triangles: 12, parts: 2, ...part },
    })
  const done = (id: string, cookie: string, sha256?: string) =>
    ask(product, 'POST', `meshes/${id}/done`, { cookie, body: { sha256 } })

  it('arrive in parts, are checked, take the place of the one before, and come back byte for byte', async () => {
    const first = randomUUID(), second = randomUUID(), parts = [bytes(900_000), bytes(1234, 7)]
    expect((await ask(product, 'GET', `meshes?mould=${ids.moulds.lantern}`, { cookie: viewer })).status).toBe(404)
    for (const id of [first, second]) {
      expect((await begin(id, member)).status).toBe(200)
      expect((await put(id, 0, parts[0]!, member)).status).toBe(200)
      expect((await done(id, member)).body.data?.sentence).toBe('The model did not arrive whole. Send it again.')
      expect((await put(id, 1, parts[1]!, member)).status).toBe(200)
      expect((await done(id, member, 'f'.repeat(64))).status).toBe(409)
      const sha256 = createHash('sha256').update(parts[0]!).update(parts[1]!).digest('hex')
      expect((await done(id, member, sha256)).body).toMatchObject({ id, sha256, bytes: 901_234 })
    }
    const { body } = await ask(product, 'GET', `meshes?mould=${ids.moulds.lantern}`, { cookie: viewer })
    expect(body).toMatchObject({ id: second, parts: 2 })
    const back = await fetch(`${product.url}/api/meshes/${second}/parts/1`, { headers: { cookie: viewer } })
    expect([back.headers.get('content-type'), new Uint8Array(await back.arrayBuffer())]).toEqual([
      'application/octet-stream',
      parts[1],
    ])
    expect((await put(second, 1, bytes(5), member)).status).toBe(404)
  })

  it('are for members to change, of a mould that exists, within limits said in words', async () => {
    const id = randomUUID()
    expect((await begin(id, viewer)).status).toBe(403)
    expect((await begin(id, member, { mould: randomUUID() })).status).toBe(404)
    expect((await begin(id, member, { triangles: 6_000_000 })).body.data?.sentence).toBe(
      'A model has at most five million triangles.',
    )
    expect((await begin(id, member, { parts: 5000 })).body.data?.sentence).toMatch(/^This model is too large to keep/)
    await begin(id, member)
    expect((await put(id, 0, bytes(900_001), member)).status).toBe(400)
    expect((await put(id, 2, bytes(10), member)).status).toBe(404)
    expect((await fetch(`${product.url}/api/meshes/${id}/parts/0`)).status).toBe(401)
  })
})

describe('photos of moulds', () => {
  /**
   * The least that is a JPEG by its segments: frame 7 x 5, with place and comment beside it, and a tail after its end.
   */
  const segment = (
    marker: number,
    ...data: number[]
  ) => [0xFF, marker, (data.length + 2) >> 8, (data.length + 2) & 255, ...data]
  const text = (words: string) => [...new TextEncoder().encode(words)]
  const picture = [
    ...segment(0xC0, 8, 0, 5, 0, 7, 1, 1, 0x11, 0),
    ...segment(0xDA, 1, 1, 0, 0, 63, 0),
    1,
    2,
    0xFF,
    0,
    3,
    0xFF,
    0xD9,
  ]
  const jpeg = Uint8Array.from([
    0xFF,
    0xD8,
    ...segment(0xE1, ...text('Exif 53.1 N 8.2 E')),
    ...segment(0xFE, ...text('owner')),
    ...picture,
    ...text('and a film'),
  ])
  const put = (id: string, body: Uint8Array, cookie: string, mould: string = ids.moulds.lantern, caption = 'Seam') =>
    fetch(`${product.url}/api/photos/${id}?mould=${mould}&caption=${caption}`, {
      method: 'PUT',
      headers: { 'origin': product.url, 'sec-fetch-site': 'same-origin', 'content-type': 'image/jpeg', cookie },
      body: body as BodyInit,
    })

  it('keep the picture and nothing that was written beside it, once however often they are sent, and go when told', async () => {
    const id = randomUUID()
    expect(await (await put(id, jpeg, member)).json()).toEqual({ id, width: 7, height: 5 })
    expect((await put(id, jpeg, member)).status).toBe(200)
    expect((await ask(product, 'GET', `photos?mould=${ids.moulds.lantern}`, { cookie: viewer })).body).toMatchObject([{
      id,
      caption: 'Seam',
      width: 7,
      height: 5,
      bytes: 2 + picture.length,
    }])
    const back = await fetch(`${product.url}/api/photos/${id}`, { headers: { cookie: viewer } })
    expect(back.headers.get('vary')).toMatch(/cookie/i)
    expect([
      back.headers.get('content-type'),
      back.headers.get('x-content-type-options'),
      new Uint8Array(await back.arrayBuffer()),
    ]).toEqual(['image/jpeg', 'nosniff', Uint8Array.from([0xFF, 0xD8, ...picture])])
    expect((await ask(product, 'DELETE', `photos/${id}`, { cookie: viewer })).status).toBe(403)
    expect((await ask(product, 'DELETE', `photos/${id}`, { cookie: member })).status).toBe(200)
    expect((await ask(product, 'GET', `photos/${id}`, { cookie: member })).status).toBe(404)
  })

  it('are for members, of a mould that exists, and JPEG that is whole; anything else is refused in words', async () => {
    const id = randomUUID()
    const sentence = async (r: Response) => ((await r.json()) as { data: { sentence: string } }).data.sentence
    expect((await put(id, jpeg, viewer)).status).toBe(403)
    expect((await put(id, jpeg, member, randomUUID())).status).toBe(404)
    expect((await fetch(`${product.url}/api/photos/${id}`)).status).toBe(401)
    for (
      const broken of [
        jpeg.slice(0, 60),
        Uint8Array.from(text('<svg onload=alert(1)>')),
        jpeg.slice(2),
        Uint8Array.from([0xFF, 0xD8, 0xFF, 0xD9]),
      ]
    ) expect(await sentence(await put(id, broken, member))).toBe('This is no whole JPEG photo.')
    expect(await sentence(await put(id, new Uint8Array(900_001), member))).toMatch(
      /^A photo has between 1 and 900000 bytes/,
    )
  })
})

describe('links', () => {
  const made: { id: string, token: string }[] = []
  const link = async (kind: string, name: string, cookie = owner) =>
    ask(product, 'POST', 'links', { cookie, body: { kind, name } })

  it('are made by an owner; the secret is told once and nowhere again', async () => {
    expect((await link('wall', 'Class', member)).status).toBe(403)
    expect((await link('wall', '')).body.data?.sentence).toBe('Say what the link is for.')
    const { body } = await link('wall', 'Class')
    made.push(body as unknown as typeof made[number])
    expect(body.token).toMatch(/^[\w-]{43}$/)
    const list = await ask(product, 'GET', 'links', { cookie: member })
    expect(JSON.stringify(list.body)).toContain('Class')
    expect(JSON.stringify(list.body)).not.toContain(body.token as string)
  })

  it('a wall sees live pours without people or notes, and only by its own kind of link', async () => {
    const { body: pour } = await start(member), id = pour.id as string
    await ask(product, 'POST', `pours/${id}/events`, {
      cookie: member,
      body: {
        sentAt: Date.now(),
        events: [stage('weigh'), { ...stage('weigh'), kind: 'note', data: { text: 'kept from the class' } }],
      },
    })
    const wall = await ask(product, 'GET', `wall/${made[0]!.token}`)
    const seen = (wall.body.pours as { id: string, events: { kind: string, actor: string, device: string }[] }[]).find(
      p => p.id === id,
    )!
    expect(seen.events.map(e => [e.kind, e.actor, e.device])).toEqual([['stage', '', ''], ['stage', '', '']])
    expect(JSON.stringify(wall.body)).not.toMatch(/kept from the class|example\.org|startedBy/)
    const calendar = await link('calendar', 'Mine')
    expect((await ask(product, 'GET', `wall/${calendar.body.token as string}`)).status).toBe(404)
    expect((await ask(product, 'GET', `wall/${'A'.repeat(43)}`)).status).toBe(404)
    expect((await ask(product, 'GET', 'wall/short')).status).toBe(400)
  })

  it('are taken back by an owner: from then on they open nothing, and a display that stands open is ended', async () => {
    const stream = await fetch(`${product.url}/api/wall/${made[0]!.token}/live`),
      reader = stream.body!.pipeThrough(new TextDecoderStream()).getReader()
    expect((await reader.read()).value).toContain('hello')
    expect((await ask(product, 'DELETE', `links/${made[0]!.id}`, { cookie: member })).status).toBe(403)
    expect((await ask(product, 'DELETE', `links/${made[0]!.id}`, { cookie: owner })).status).toBe(200)
    for (;;) if ((await reader.read()).done) break
    expect((await ask(product, 'GET', `wall/${made[0]!.token}`)).body.data?.sentence).toBe(
      'This link was taken back. Ask for a new one.',
    )
    expect((await ask(product, 'DELETE', `links/${made[0]!.id}`, { cookie: owner })).status).toBe(404)
  })
})

describe('the logbook as a table', () => {
  it('is read by an independent parser: a line for every cast of every pour, what was judged in it, and no formula', async () => {
    const cookie = (await ask(demo, 'POST', 'demo-entrance')).cookie
    const text = await (await fetch(`${demo.url}/api/logbook`, { headers: { cookie } })).text()
    const { data, errors } = Papa.parse<Record<string, string>>(text.replace(/^\uFEFF/, ''), {
      header: true,
      skipEmptyLines: true,
    })
    expect(errors).toEqual([])
    const pours = (await ask(demo, 'GET', 'pours', { cookie })).body as unknown as {
      summary: { moulds: { count: number }[] }
    }[]
    expect(data).toHaveLength(pours.flatMap(p => p.summary.moulds).reduce((n, m) => n + m.count, 0))
    expect(data.filter(r => r.defects === 'soft or chalky' && r.verdict === 'second')).toHaveLength(3)
    expect(data.every(r => Object.values(r).every(v => !/^[=+@]/.test(v)))).toBe(true)
    expect((await fetch(`${demo.url}/api/logbook`)).status).toBe(401)
  })
})

describe('calendars', () => {
  it('an independent parser reads the moments to come; the same moment keeps its id; a wall’s link opens none', async () => {
    const cookie = (await ask(demo, 'POST', 'demo-entrance')).cookie
    const { body: link } = await ask(demo, 'POST', 'links', { cookie, body: { kind: 'calendar', name: 'Mine' } })
    const read = async () => {
      const response = await fetch(`${demo.url}/api/calendar/${link.token as string}.ics`)
      expect([response.status, response.headers.get('content-type')]).toEqual([200, 'text/calendar; charset=utf-8'])
      return new ICAL.Component(ICAL.parse(await response.text()) as unknown as string).getAllSubcomponents('vevent')
        .map(v => new ICAL.Event(v))
    }
    const events = await read(),
      casts = (await ask(demo, 'GET', 'casts', { cookie })).body as unknown as {
        pour: string
        cast: { status: string, openFrom: number, openTo: number, label: string }
      }[]
    const bell = casts.find(c =>
      c.cast.status === 'setting' && c.cast.label === 'Bell-pull 1' && c.cast.openTo - Date.now() > -3_600_000,
    )!
    const opening = events.find(e => e.summary === 'Open: 12 × Bell-pull')!
    expect([opening.startDate.toJSDate().getTime(), opening.endDate.toJSDate().getTime()]).toEqual(
      [bell.cast.openFrom, bell.cast.openTo].map(t => Math.floor(t / 1000) * 1000),
    )
    expect(events.some(e => /dry enough to/.test(e.summary))).toBe(true)
    expect((await read()).map(e => e.uid)).toEqual(events.map(e => e.uid))
    expect(new Set(events.map(e => e.uid)).size).toBe(events.length)
    const { body: wall } = await ask(demo, 'POST', 'links', { cookie, body: { kind: 'wall', name: 'Class' } })
    expect((await fetch(`${demo.url}/api/calendar/${wall.token as string}.ics`)).status).toBe(404)
    expect((await fetch(`${demo.url}/api/calendar`)).status).toBe(401)
  })
})

describe('the database', () => {
  it('when it is gone the server says so in words, and goes on when it is back', async () => {
    const admin = new pg.Client({ connectionString: `${inject('databaseBase')}postgres` })
    await admin.connect()
    const name = new URL(product.databaseUrl).pathname.slice(1)
    const endAll = () =>
      admin.query('select pg_terminate_backend(pid) from pg_stat_activity where datname = $1', [name])
    await admin.query(`alter database ${name} allow_connections false`)
    await endAll()
    const gone = await ask(product, 'GET', 'plans', { cookie: owner })
    expect(gone.status).toBe(503)
    expect(gone.body.data?.sentence).toMatch(/records cannot be reached/)
    expect(JSON.stringify(gone.body)).not.toContain('pg_')
    await admin.query(`alter database ${name} allow_connections true`)
    await expect.poll(async () => (await ask(product, 'GET', 'plans', { cookie: owner })).status).toBe(200)
    await admin.end()
  })

  it('events sent while it is gone are refused, not half written, and taken when it is back', async () => {
    const made = await start(member)
    const admin = new pg.Client({ connectionString: `${inject('databaseBase')}postgres` })
    await admin.connect()
    const path = `pours/${made.body.id as string}/events`,
      body = { sentAt: Date.now(), events: [stage('weigh'), stage('sift')] }
    const [answer] = await Promise.all([
      ask(product, 'POST', path, { cookie: member, body }),
      admin.query('select pg_terminate_backend(pid) from pg_stat_activity where datname = $1', [
        new URL(product.databaseUrl).pathname.slice(1),
      ]),
    ])
    expect([200, 500, 503]).toContain(answer.status)
    await expect.poll(async () => (await ask(product, 'POST', path, { cookie: member, body })).status).toBe(200)
    const { body: pour } = await ask(product, 'GET', `pours/${made.body.id as string}`, { cookie: viewer })
    expect(pour.events).toHaveLength(3)
    await admin.end()
  })

  it('live streams come back by themselves after it was gone', async () => {
    const hear = async () => {
      const control = new AbortController()
      const stream = await fetch(`${product.url}/api/live`, { headers: { cookie: viewer }, signal: control.signal })
      const reader = stream.body!.pipeThrough(new TextDecoderStream()).getReader()
      let heard = ''
      /** @returns false when the stream ended before. */
      const until = async (word: string) => {
        while (!heard.includes(word)) {
          const { value, done } = await reader.read()
          if (done) return false
          heard += value
        }
        return true
      }
      return { until, close: () => control.abort() }
    }
    const before = await hear()
    expect(await before.until('hello')).toBe(true)
    const admin = new pg.Client({ connectionString: `${inject('databaseBase')}postgres` })
    await admin.connect()
    await admin.query('select pg_terminate_backend(pid) from pg_stat_activity where datname = $1', [
      new URL(product.databaseUrl).pathname.slice(1),
    ])
    // The stream ends with what it listened to, so that browsers come back and catch up; then news flow again.
    expect(await before.until('never said')).toBe(false)
    await expect.poll(async () => (await start(member)).status).toBe(200)
    const after = await hear()
    expect(await after.until('hello')).toBe(true)
    const made = await start(member)
    expect(await after.until(made.body.id as string)).toBe(true)
    after.close()
    await admin.end()
  })
})

describe('the logbook over HTTP', () => {
  it('takes what is looked for from the address, one fact or several, and says what is wrong with it', async () => {
    const { cookie } = await ask(demo, 'POST', 'demo-entrance'),
      get = (path: string) => ask(demo, 'GET', `logbook/${path}`, { cookie })
    expect((await get('pours?find=tiles&facts=verdict:second')).body.count).toBe(1)
    expect((await get('pours?facts=verdict:second&facts=defect:soft')).body.count).toBe(1)
    expect((await get('pours?from=soon')).body.data?.sentence).toBe('A month is a year and a number, like 2026-11.')
    for (const bad of ['pours?after=1', 'pours?facts=%27', 'set-times?bag=1']) expect((await get(bad)).status).toBe(400)
    const view = randomUUID()
    expect(
      (await ask(demo, 'PUT', `logbook/views/${view}`, { cookie, body: { name: ' ', query: {} } })).body.data?.sentence,
    ).toBe('Give the view a name.')
    expect((await ask(demo, 'PUT', `logbook/views/${view}`, { cookie, body: { name: 'All', query: {} } })).status).toBe(
      200,
    )
    expect((await ask(demo, 'DELETE', `logbook/views/${view}`, { cookie })).status).toBe(200)
    expect((await ask(demo, 'DELETE', `logbook/views/${view}`, { cookie })).status).toBe(404)
  })

  it('a row that cannot be taken in is named by its place; a file that is no archive is refused in words', async () => {
    const row = {
      date: '2024-05-03',
      mould: ids.moulds.lantern,
      pieces: 1,
      classId: 'casting-plaster',
      defects: [],
      note: '',
    }
    const answer = await ask(product, 'POST', 'import', {
      cookie: member,
      body: { kind: 'pours', rows: [row, { ...row, mould: randomUUID() }] },
    })
    expect([answer.status, answer.body.data]).toEqual([422, {
      sentence: 'This mould is not in the library any more.',
      field: 'rows.1',
    }])
    const archive = await ask(product, 'POST', 'archive', {
      cookie: owner,
      body: 'no archive',
      headers: { 'content-type': 'application/zip' },
    })
    expect([archive.status, archive.body.data?.sentence]).toEqual([422, expect.stringMatching(/not a whole archive/)])
  })
})

describe('labels', () => {
  it('print as a PDF with as many pages as they need, and their codes open the pour they belong to, in its own workshop only', async () => {
    const { body: pour } = await start(member), id = pour.id as string
    await ask(product, 'POST', `pours/${id}/events`, {
      cookie: member,
      body: {
        sentAt: Date.now(),
        events: ['sift', 'clean-up'].map((s, i) => ({ ...stage(s), happenedAt: Date.now() + i * 1000 })),
      },
    })
    const response = await fetch(`${product.url}/api/pours/${id}/labels`, { headers: { cookie: viewer } })
    expect(response.headers.get('content-type')).toBe('application/pdf')
    const pdf = await PDFDocument.load(await response.arrayBuffer())
    expect([pdf.getTitle(), pdf.getPageCount()]).toEqual(['Labels: Six lantern bases', 1])
    const code = `${id.slice(0, 8)}-1.1`
    expect((await ask(product, 'GET', `labels/${code.toUpperCase()}`, { cookie: viewer })).body.things).toEqual([{
      what: 'cast',
      id,
      cast: '1.1',
      name: expect.stringContaining('Lantern base 1, Six lantern bases'),
    }])
    const elsewhere = (await ask(demo, 'POST', 'demo-entrance')).cookie
    expect((await ask(demo, 'GET', `labels/${code}`, { cookie: elsewhere })).status).toBe(404)
    expect((await ask(product, 'GET', 'labels/no-code', { cookie: viewer })).body.data?.sentence).toMatch(
      /^That is no code of a label/,
    )
    const bags = await PDFDocument.load(
      await (await fetch(`${demo.url}/api/labels/bags`, { headers: { cookie: elsewhere } })).arrayBuffer(),
    )
    expect(bags.getPageCount()).toBe(1)
  })
})
