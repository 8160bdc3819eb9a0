import { randomUUID } from 'node:crypto'
import { describe, expect, it } from 'vitest'
import { MOULDS } from '../../demo/saltmarsh'
import { ask, comeIn, demo, idOf, ids, member, overHttp, owner, PASSWORD, plan, product, signIn, stage, start, viewer } from './over-http'

/** The built server over HTTP: who may do what, what is refused and in which words. */
overHttp({ demo: true })

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
  it('the cookie is a secret, http-only and same-site, and says nothing readable', async () => {
    const response = await fetch(`${product.url}/api/session`, {
      method: 'POST',
      headers: { 'origin': product.url, 'content-type': 'application/json' },
      body: JSON.stringify({ email: 'first@example.org', password: PASSWORD }),
    })
    const cookies = response.headers.getSetCookie()
    expect(cookies.map(c => c.split('=')[0])).toEqual(['ripples-session', 'ripples-device'])
    for (const cookie of cookies) {
      expect(cookie).toMatch(/HttpOnly/i)
      expect(cookie).toMatch(/SameSite=Lax/i)
      expect(cookie.split('=')[1]).toMatch(/^[\w-]{43};/)
    }
  })

  it('a wrong address and a wrong password read the same', async () => {
    const [a, b] = [await signIn('nobody@example.org'), await signIn('first@example.org', 'not the password')]
    expect([a.status, a.body.data?.sentence]).toEqual([b.status, b.body.data?.sentence])
    expect(a.status).toBe(401)
  })

  it('too many tries have to wait, in words, even all at once', async () => {
    const tries = await Promise.all(Array.from({ length: 14 }, () => signIn('viewer@example.org', 'guess after guess')))
    expect(tries.filter(t => t.status === 401).length).toBeLessThanOrEqual(6)
    expect(tries.find(t => t.status === 429)?.body.data?.sentence).toMatch(/^Too many tries\. Wait \d+ s/)
    expect((await signIn('first@example.org')).status).toBe(200)
  })

  it('a person who was removed is out at once', async () => {
    const cookie = await comeIn(owner, 'brief', 'member')
    expect((await ask(product, 'GET', 'plans', { cookie })).status).toBe(200)
    await ask(product, 'PATCH', `people/${await idOf(cookie)}`, { cookie: owner, body: { archived: true } })
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
    ['POST', 'invitations', {}],
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
      (await ask(product, 'POST', 'invitations', { cookie: member, body: { name: 'x', role: 'owner' } })).status,
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
    }, /^A mould has to hold more than zero/],
    [
      'a short password',
      'PUT',
      'account/password',
      { old: PASSWORD, password: 'short' },
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
