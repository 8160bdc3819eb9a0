import { execFile } from 'node:child_process'
import type { TOTP } from 'otpauth'
import { URI } from 'otpauth'
import { describe, expect, it } from 'vitest'
import { freshDatabase } from './fresh'
import { ask, comeIn, idOf, member, overHttp, owner, PASSWORD, product, signIn, viewer } from './over-http'
import { FREE } from '../../server/auth/guessing'
import { giveBack, takeGuesses, type Guess } from '../../server/auth/guessing'
import { sql } from 'kysely'

/** Who signs in, from where, and what ends it. */
overHttp()

const sentence = (answer: { body: { data?: { sentence?: string } } }) => answer.body.data?.sentence
const account = async (cookie: string) => (await ask(product, 'GET', 'account', { cookie })).body as unknown as {
  sessions: { id: string, device: string, here: boolean }[]
  workshops: { id: string, name: string, here: boolean }[]
  secondFactor: boolean
  recoveryLeft: number
}
const works = async (cookie: string) => (await ask(product, 'GET', 'plans', { cookie })).status === 200

/** A stream of what changes. @returns what resolves when the server ends it */
async function stream(cookie: string): Promise<{ ended: Promise<void> }> {
  const answer = await fetch(`${product.url}/api/live`, { headers: { cookie } }), reader = answer.body!.getReader()
  expect(answer.status).toBe(200)
  await reader.read()
  const ended = (async () => {
    while (!(await reader.read()).done);
  })()
  return { ended }
}

describe('a session', () => {
  it('is listed with its device, ends one by one, and its stream with it', async () => {
    const here = await comeIn(owner, 'several', 'member')
    const phone = await ask(product, 'POST', 'session', {
      body: { email: 'several@example.org', password: PASSWORD },
      headers: { 'user-agent': 'Mozilla/5.0 (Linux; Android 14; Pixel) AppleWebKit/537.36 Chrome/120.0 Mobile Safari/537.36' },
    })
    const { sessions } = await account(here), other = sessions.find(s => !s.here)!
    expect([sessions.length, other.device]).toEqual([2, 'Chrome on Android'])
    const open = await stream(phone.cookie)
    expect((await ask(product, 'DELETE', `account/sessions/${other.id}`, { cookie: here })).status).toBe(200)
    await open.ended
    expect([await works(phone.cookie), await works(here)]).toEqual([false, true])
    // Nobody ends somebody else's.
    const [mine] = (await account(owner)).sessions
    expect((await ask(product, 'DELETE', `account/sessions/${mine!.id}`, { cookie: here })).status).toBe(404)
  })

  it('ends for good by signing out, whatever the browser keeps', async () => {
    const { cookie } = await signIn('member@example.org'), open = await stream(cookie)
    await ask(product, 'DELETE', 'session', { cookie })
    await open.ended
    expect(await works(cookie)).toBe(false)
  })

  it('of somebody who is taken out ends at once; a new role counts at once', async () => {
    const cookie = await comeIn(owner, 'passing', 'member'), id = await idOf(cookie), open = await stream(cookie)
    const named = (role: string) => ask(product, 'PATCH', `people/${id}`, { cookie: owner, body: { role } })
    const tries = () => ask(product, 'POST', 'import', { cookie, body: { kind: 'bags', rows: [] } })
    await named('viewer')
    expect((await tries()).status).toBe(403)
    await named('member')
    expect((await tries()).status).not.toBe(403)
    await ask(product, 'PATCH', `people/${id}`, { cookie: owner, body: { archived: true } })
    await open.ended
    expect(await works(cookie)).toBe(false)
    expect(await signIn('passing@example.org')).toMatchObject({ status: 403 })
  })

  it('does nothing for a page that was opened as somebody else', async () => {
    const answer = await ask(product, 'PATCH', 'workshop', {
      cookie: owner, body: { name: 'Theirs' }, headers: { 'ripples-person': await idOf(member) },
    })
    expect([answer.status, sentence(answer)]).toEqual([401, expect.stringMatching(/^This browser is signed in as someone else/)])
    expect((await ask(product, 'GET', 'session', { cookie: owner })).body.workshop).toMatchObject({ name: 'Ours' })
  })
})

describe('a password', () => {
  it('is changed by whoever knows it, and ends all other sessions', async () => {
    const here = await comeIn(owner, 'careful', 'member'), there = (await signIn('careful@example.org')).cookie
    const change = (body: object) => ask(product, 'PUT', 'account/password', { cookie: here, body })
    expect(await change({ old: 'not this one', password: 'four unlikely words here' })).toMatchObject({ status: 403 })
    expect((await change({ old: PASSWORD, password: 'four unlikely words here' })).status).toBe(200)
    expect([await works(here), await works(there)]).toEqual([true, false])
    expect((await signIn('careful@example.org')).status).toBe(401)
    expect((await signIn('careful@example.org', 'four unlikely words here')).status).toBe(200)
  })

  it.each([
    ['password12', /^Many people have that password/],
    ['1234567890', /^Many people have that password/],
    ['qwertyuiop', /^Many people have that password/],
    ['guarded@example.org', /^That is little more than a name of yours/],
    ['guarded123', /^That is little more than a name of yours/],
  ])('%s is refused', async (password, words) => {
    const cookie = (await signIn('guarded@example.org')).cookie || await comeIn(owner, 'guarded', 'viewer')
    const answer = await ask(product, 'PUT', 'account/password', { cookie, body: { old: PASSWORD, password } })
    expect([answer.status, sentence(answer)]).toEqual([422, expect.stringMatching(words)])
  })

  it('is opened by an owner only for an account of this workshop alone, once, and ends its sessions', async () => {
    const cookie = await comeIn(owner, 'forgetful', 'member'), id = await idOf(cookie)
    expect((await ask(product, 'POST', `people/${id}/reset`, { cookie: member })).status).toBe(403)
    const older = (await ask(product, 'POST', `people/${id}/reset`, { cookie: owner })).body
    const { body } = await ask(product, 'POST', `people/${id}/reset`, { cookie: owner }), path = `tickets/${body.token as string}`
    expect((await ask(product, 'GET', path)).body).toMatchObject({ kind: 'reset', email: 'forgetful@example.org' })
    const twice = await Promise.all([1, 2].map(() => ask(product, 'POST', path, { body: { password: 'quite another one now' } })))
    expect(twice.map(t => t.status).sort()).toEqual([200, 404])
    expect((await ask(product, 'GET', `tickets/${older.token as string}`)).status).toBe(404)
    expect(await works(cookie)).toBe(false)
    expect((await signIn('forgetful@example.org', 'quite another one now')).status).toBe(200)
  })
})

describe('bin/owner', () => {
  /** Beside the test, which goes on hearing what becomes of its connections. */
  const run = (...args: string[]) => new Promise<{ stdout: string, stderr: string }>((done) => {
    const env = { ...process.env, DATABASE_URL: product.databaseUrl }
    execFile('bin/owner', args, { env }, (_, stdout, stderr) => done({ stdout, stderr }))
  })
  it('brings somebody who was taken out back as an owner, by a link to a new password', async () => {
    const cookie = await comeIn(owner, 'stranded', 'member')
    await ask(product, 'PATCH', `people/${await idOf(cookie)}`, { cookie: owner, body: { archived: true } })
    expect((await run()).stdout).toMatch(/stranded@example\.org {2}stranded, taken out of Ours/)
    expect((await run('owner', 'stranded@example.org')).stdout).toMatch(/is an owner now, of one workshop/)
    const token = /\/enter\/([\w-]{43})/.exec((await run('reset', 'stranded@example.org')).stdout)![1]!
    const came = await ask(product, 'POST', `tickets/${token}`, { body: { password: 'quite another one now' } })
    expect((await ask(product, 'GET', 'session', { cookie: came.cookie })).body.person).toMatchObject({ role: 'owner' })
    expect((await run('reset', 'nobody@example.org')).stderr).toMatch(/^Nobody signs in with nobody@example\.org here/)
  })
})

describe('an invitation', () => {
  it('can be taken back, works once, and takes whoever is signed in as they are', async () => {
    const make = async () => (await ask(product, 'POST', 'invitations', { cookie: owner, body: { name: 'X' } })).body
    const back = await make(), used = await make()
    await ask(product, 'DELETE', `invitations/${back.id as string}`, { cookie: owner })
    expect((await ask(product, 'GET', `tickets/${back.token as string}`)).status).toBe(404)
    const before = await idOf(viewer)
    const came = await ask(product, 'POST', `tickets/${used.token as string}`, { cookie: viewer, body: {} })
    expect(came.status).toBe(200)
    // Who belongs here already keeps what they may do.
    expect(await idOf(came.cookie)).toBe(before)
    expect((await ask(product, 'POST', `tickets/${used.token as string}`, { cookie: member, body: {} })).status).toBe(404)
  })

  it('says at its field what is missing, and is not used up by it', async () => {
    const { body } = await ask(product, 'POST', 'invitations', { cookie: owner, body: {} }), path = `tickets/${body.token as string}`
    const wrong = await ask(product, 'POST', path, { body: { name: 'N', email: 'n@example.org' } })
    expect([wrong.status, wrong.body.data?.field]).toEqual([400, 'password'])
    const taken = await ask(product, 'POST', path, { body: { name: 'N', email: 'first@example.org', password: PASSWORD } })
    expect([taken.status, taken.body.data?.field]).toEqual([409, 'email'])
    expect((await ask(product, 'GET', path)).status).toBe(200)
  })
})

describe('what viewers see', () => {
  it('is not everybody’s address', async () => {
    const told = async (cookie: string) => (await ask(product, 'GET', 'people', { cookie })).body as unknown as { email?: string }[]
    expect((await told(member)).some(p => p.email !== undefined)).toBe(true)
    expect((await told((await signIn('viewer@example.org')).cookie)).every(p => p.email === undefined)).toBe(true)
  })
})

describe('the list of comings and goings', () => {
  it('says who did what, to owners', async () => {
    const cookie = await comeIn(owner, 'noted', 'member')
    await ask(product, 'PATCH', `people/${await idOf(cookie)}`, { cookie: owner, body: { role: 'viewer' } })
    const rows = (await ask(product, 'GET', 'audit', { cookie: owner })).body as unknown as { code: string, who: string, about: string }[]
    expect(rows.slice(0, 3).map(r => [r.code, r.who, r.about])).toEqual([
      ['role', 'First', 'noted · viewer'], ['joined', 'noted', 'member'], ['invited', 'First', 'noted'],
    ])
    expect((await ask(product, 'GET', 'audit', { cookie: member })).status).toBe(403)
  })
})

describe('a second factor', () => {
  it('is asked for besides the password, takes each code once, and recovery codes when the phone is lost', async () => {
    const cookie = await comeIn(owner, 'double', 'member')
    const offered = (await ask(product, 'POST', 'account/second-factor', { cookie, body: { password: PASSWORD } })).body
    const phone = URI.parse(offered.uri as string) as TOTP
    const confirm = (code: string) => ask(product, 'PUT', 'account/second-factor', { cookie, body: { code } })
    expect((await confirm(phone.generate({ timestamp: Date.now() - 3_600_000 }))).status).toBe(403)
    const now = Date.now(), recovery = (await confirm(phone.generate({ timestamp: now }))).body.recovery as string[]
    expect(recovery).toHaveLength(10)

    const enter = (code?: string) => ask(product, 'POST', 'session', {
      body: { email: 'double@example.org', password: PASSWORD, ...code && { code } },
    })
    const without = await enter()
    expect([without.status, without.body.data?.field]).toEqual([401, 'code'])
    expect((await enter('000000')).status).toBe(401)
    // The code it was switched on with was used; the next half minute's is taken, and once.
    expect((await enter(phone.generate({ timestamp: now }))).status).toBe(401)
    const next = phone.generate({ timestamp: now + 30_000 })
    expect([(await enter(next)).status, (await enter(next)).status]).toEqual([200, 401])
    expect([(await enter(recovery[0])).status, (await enter(recovery[0])).status]).toEqual([200, 401])
    expect(await account(cookie)).toMatchObject({ secondFactor: true, recoveryLeft: 9 })

    expect((await ask(product, 'POST', 'account/second-factor/off', { cookie, body: { password: 'x' } })).status).toBe(403)
    expect((await ask(product, 'POST', 'account/second-factor/off', { cookie, body: { password: PASSWORD } })).status).toBe(200)
    expect((await enter()).status).toBe(200)
  })
})

describe('guessing', () => {
  it('makes a place wait longer each time, gives right tries back, and forgets after a day', async () => {
    const { db, close } = await freshDatabase(), guess: Guess = { kind: 'account', about: 'here someone' }
    const again = () => takeGuesses(db, [guess])
    for (let n = 0; n < FREE.account; n++) expect(await again()).toBe(false)
    await giveBack(db, [guess])
    expect(await again()).toBe(false)
    // The first that is followed by a wait says so; owners read of it.
    expect(await again()).toBe(true)
    await expect(again()).rejects.toThrow(/^Too many tries\. Wait 2 s/)
    await sql`update guess set free_at = clock_timestamp()`.execute(db)
    expect(await again()).toBe(false)
    await expect(again()).rejects.toThrow(/^Too many tries\. Wait 4 s/)
    await sql`update guess set tries = 40, free_at = clock_timestamp()`.execute(db)
    await again()
    await expect(again()).rejects.toThrow(/^Too many tries\. Wait 15 min/)
    await sql`update guess set tried_at = clock_timestamp() - interval '25 hours', free_at = clock_timestamp()`.execute(db)
    expect(await again()).toBe(false)
    await close()
  })

  it('never shuts out a browser that was signed in from before', async () => {
    const known = await comeIn(owner, 'target', 'member'), device = known.split('; ').find(c => c.startsWith('ripples-device'))!
    for (let n = 0; n < FREE.account + 3; n++) await signIn('target@example.org', 'one guess after another')
    expect((await signIn('target@example.org')).status).toBe(429)
    const mine = await ask(product, 'POST', 'session', { body: { email: 'target@example.org', password: PASSWORD }, cookie: device })
    expect(mine.status).toBe(200)
    const rows = (await ask(product, 'GET', 'audit', { cookie: owner })).body as unknown as { code: string, about: string }[]
    expect(rows.filter(r => r.code === 'guessing').map(r => r.about)).toEqual(['target'])
  })

  it('believes a forwarded place only of a proxy that was named, and then lets nothing secret over plain http', async () => {
    const answer = await ask(product, 'GET', 'session', { headers: { 'x-forwarded-for': '203.0.113.9' } })
    expect([answer.status, sentence(answer)]).toEqual([403, expect.stringMatching(/^Nothing secret is told over plain http/)])
  })
})

describe('a passkey', () => {
  it('is for addresses that are names, and opens nothing by an answer to something else', async () => {
    const cookie = await comeIn(owner, 'keyed', 'member')
    const byName = { ...product, url: product.url.replace('127.0.0.1', 'localhost') }
    const key = { id: 'AAAA', rawId: 'AAAA', type: 'public-key' }, made = { clientDataJSON: 'e30', attestationObject: 'oA' }
    const used = { ...key, response: { clientDataJSON: 'e30', authenticatorData: 'AA', signature: 'AA' } }
    const enter = (at: typeof product, body: object) => ask(at, 'POST', 'session/passkey', { body })
    const all = async (at: typeof product) => [
      await ask(at, 'POST', 'account/passkeys/asked', { cookie, body: { password: PASSWORD } }),
      await ask(at, 'POST', 'account/passkeys', { cookie, body: { key: { ...key, response: made } } }),
      await enter(at, used),
    ].map(r => r.status)
    expect(await all(product)).toEqual([409, 409, 409])
    expect(await all(byName)).toEqual([200, 422, 401])
    const damaged = await enter(byName, { ...used, id: '<script>' })
    expect([damaged.status, sentence(damaged)]).toEqual([400, 'This passkey arrived damaged. Try it again.'])
    expect(await account(cookie)).toMatchObject({ passkeys: [] })
  })
})
