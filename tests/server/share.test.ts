import { spawn, spawnSync } from 'node:child_process'
import { X509Certificate } from 'node:crypto'
import { mkdtempSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs'
import { request } from 'node:https'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { connect } from 'node:tls'
import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest'
import { isPrivate, keptAuthority, makeLeaf } from '../../bin/authority.mjs'
import { keepShared } from '../../bin/share.mjs'
import type { ShareOrder } from '../../contract/share'
import { launch, type Product } from '../product'
import { HOST, launchShared, type Shared } from '../shared'

const DAY = 86_400_000, NAME = 'bench-under-test.local'
const scratch = () => mkdtempSync(join(tmpdir(), 'ripples-share-'))

/** What OpenSSL says of a certificate: a judge of its own. */
function verify(chain: { root: string, middle: string, leaf: string }, ...asked: string[]): string {
  const folder = scratch(), file = (name: string) => join(folder, name)
  for (const [name, pem] of Object.entries(chain)) writeFileSync(file(name), pem)
  const said = spawnSync('openssl', [
    'verify', '-x509_strict', '-CAfile', file('root'), '-untrusted', file('middle'), ...asked, file('leaf'),
  ], { encoding: 'utf8' })
  return `${said.stdout}${said.stderr}`
}

describe('the authority', () => {
  it('keeps one file that only its owner reads, without the root’s key, and the same one the next time', async () => {
    const folder = join(scratch(), 'share'), made = await keptAuthority(folder, NAME)
    expect(readdirSync(folder)).toEqual(['authority.json'])
    expect([statSync(folder).mode & 0o777, statSync(join(folder, 'authority.json')).mode & 0o777]).toEqual([0o700, 0o600])
    const text = readFileSync(join(folder, 'authority.json'), 'utf8')
    expect(text.match(/PRIVATE KEY-----\\n/g)).toHaveLength(2)
    // The one key there is the intermediate's: it is the one that leaves are signed with.
    const leaf = new X509Certificate((await makeLeaf(made, ['192.168.7.7'])).cert)
    expect(leaf.verify(new X509Certificate(made.middle).publicKey)).toBe(true)
    expect(leaf.verify(new X509Certificate(made.root).publicKey)).toBe(false)
    expect(await keptAuthority(folder, NAME)).toEqual(made)
    expect((await keptAuthority(folder, 'renamed.local')).root).not.toBe(made.root)
  })

  it('stands, to OpenSSL, for this machine’s name and private addresses, for at most 397 days', async () => {
    const { root, middle, ...made } = await keptAuthority(join(scratch(), 'share'), NAME)
    const { cert: leaf } = await makeLeaf({ root, middle, ...made }, ['192.168.7.7', '10.1.2.3', 'fd00::7', '8.8.8.8'])
    const chain = { root, middle, leaf }
    for (const ip of ['192.168.7.7', '10.1.2.3', 'fd00::7']) expect(verify(chain, '-verify_ip', ip)).toMatch(/: OK/)
    expect(verify(chain, '-verify_hostname', NAME)).toMatch(/: OK/)
    expect(verify(chain, '-verify_ip', '8.8.8.8')).toMatch(/IP address mismatch/)
    const { validFrom, validTo } = new X509Certificate(leaf)
    expect((Date.parse(validTo) - Date.parse(validFrom)) / DAY).toBeLessThanOrEqual(397)
    expect([isPrivate('172.31.0.1'), isPrivate('172.32.0.1'), isPrivate('1.1.1.1'), isPrivate('fe80::1')]).toEqual([true, false, false, true])
  })

  it('is believed by nobody for anything else: whoever steals its key stands in for no other name or address', async () => {
    const authority = await keptAuthority(join(scratch(), 'share'), NAME)
    // What a thief would do: the same key signs for a name elsewhere.
    const { cert } = await makeLeaf({ ...authority, name: 'bank.example.org' }, ['192.168.7.7'])
    expect(verify({ root: authority.root, middle: authority.middle, leaf: cert })).toMatch(/permitted subtree violation/)
  })
})

describe('sharing', () => {
  it('makes a new certificate when the address changes or the old one grows old, and not otherwise', async () => {
    let addresses = ['192.168.7.7'], now = Date.now()
    const told: ShareOrder[] = []
    const { look, stop } = await keepShared(order => told.push(order), {
      folder: join(scratch(), 'share'), name: NAME, addressesNow: () => addresses, now: () => now,
    })
    await look()
    expect(told).toHaveLength(1)
    addresses = ['192.168.9.9']
    await look()
    expect(told[1]!.facts.addresses).toEqual(['https://192.168.9.9:{https}'])
    expect(new X509Certificate(told[1]!.cert).checkIP('192.168.9.9')).toBe('192.168.9.9')
    now += 370 * DAY
    await look()
    await look()
    expect(told).toHaveLength(3)
    addresses = []
    await look()
    expect(told).toHaveLength(3)
    stop()
    await expect(keepShared(() => {}, { folder: join(scratch(), 'share'), addressesNow: () => [] })).rejects.toThrow(/on no network/)
  })
})

const OWNER = { workshop: 'Shared', name: 'S', email: 's@example.org', password: 'a long enough word' }

describe('a shared server', () => {
  let product: Product, server: Shared
  beforeAll(async () => {
    product = await launch(inject('databaseBase'), { demo: false })
    server = await launchShared(product.databaseUrl, true)
  })
  afterAll(async () => {
    server.kill()
    await product.kill()
  })

  /** Over https, trusting that authority alone. */
  function ask(method: string, path: string, { body, cookie = '' }: { body?: object, cookie?: string } = {}) {
    const at = new URL(path, server.facts.addresses[0])
    return new Promise<{ status: number, text: string, cookies: string[] }>((done, fail) => {
      const asked = request(at, {
        method, ca: server.root, headers: { 'origin': at.origin, 'content-type': 'application/json', cookie },
      }, (answer) => {
        let text = ''
        answer.on('data', (part: Buffer) => {
          text += part.toString()
        })
        answer.on('end', () => done({ status: answer.statusCode!, text, cookies: answer.headers['set-cookie'] ?? [] }))
      })
      asked.on('error', fail)
      asked.end(body && JSON.stringify(body))
    })
  }

  it('asks its first owner for the code in the terminal, and keeps sessions in cookies bound to the host', async () => {
    const session = JSON.parse((await ask('GET', '/api/session')).text) as object
    expect(session).toMatchObject({ needsOwner: true, needsCode: true, demo: false })
    const wrong = await ask('POST', '/api/owner', { body: { ...OWNER, code: 'ABCD 2346' } })
    expect([wrong.status, JSON.parse(wrong.text)]).toEqual([403, expect.objectContaining({ data: expect.objectContaining({ field: 'code' }) })])
    const right = await ask('POST', '/api/owner', { body: { ...OWNER, code: 'abcd 2345' } })
    expect(right.status).toBe(200)
    expect(right.cookies.map(c => c.split('=')[0])).toEqual(['__Host-ripples-session', '__Host-ripples-device'])
    for (const cookie of right.cookies) expect(cookie).toMatch(/; Secure/)
    const cookie = right.cookies.map(c => c.split(';')[0]).join('; ')
    expect(JSON.parse((await ask('GET', '/api/share', { cookie })).text)).toMatchObject({ share: { fingerprint: 'AB:CD' } })
    // Once there is an owner it answers so before any password is looked at.
    expect((await ask('POST', '/api/owner', { body: { ...OWNER, code: 'x' } })).status).toBe(409)
    expect((await ask('POST', '/api/demo-entrance')).status).toBe(404)
    expect((await ask('GET', '/api/session')).text).not.toMatch(/strict-transport/)
  })

  it('keeps several workshops, each opened by an invitation, and one person goes from one to the other', async () => {
    const cookiesOf = (answer: { cookies: string[] }) => answer.cookies.map(c => c.split(';')[0]).join('; ')
    const first = cookiesOf(await ask('POST', '/api/session', { body: { email: OWNER.email, password: OWNER.password } }))
    const invite = async (kind: string, cookie: string) =>
      (JSON.parse((await ask('POST', '/api/invitations', { cookie, body: { kind, role: 'member' } })).text) as { token: string }).token
    const token = await invite('open', first)
    expect(JSON.parse((await ask('GET', `/api/tickets/${token}`)).text)).toEqual({ kind: 'open', name: '' })
    const guest = { name: 'G', email: 'g@example.org', password: 'a long enough word' }
    const unnamed = await ask('POST', `/api/tickets/${token}`, { body: guest })
    expect([unnamed.status, unnamed.text]).toEqual([400, expect.stringContaining('Give the workshop a name.')])
    let cookie = cookiesOf(await ask('POST', `/api/tickets/${token}`, { body: { ...guest, workshop: 'Second' } }))
    const where = async () => {
      const { workshop, person } = JSON.parse((await ask('GET', '/api/session', { cookie })).text) as Record<string, Record<string, string>>
      return [workshop!.name, person!.role]
    }
    expect(await where()).toEqual(['Second', 'owner'])
    cookie = cookiesOf(await ask('POST', `/api/tickets/${await invite('join', first)}`, { cookie, body: {} }))
    expect(await where()).toEqual(['Shared', 'member'])
    const { workshops } = JSON.parse((await ask('GET', '/api/account', { cookie })).text) as { workshops: { id: string, name: string }[] }
    expect(workshops.map(w => w.name)).toEqual(['Second', 'Shared'])
    expect((await ask('PUT', '/api/session/workshop', { cookie, body: { workshop: workshops[0]!.id } })).status).toBe(200)
    expect(await where()).toEqual(['Second', 'owner'])
    // Who belongs elsewhere too is not the first workshop's to open.
    const people = JSON.parse((await ask('GET', '/api/people', { cookie: first })).text) as { id: string, name: string }[]
    const reset = await ask('POST', `/api/people/${people.find(p => p.name === 'G')!.id}/reset`, { cookie: first })
    expect([reset.status, reset.text]).toEqual([409, expect.stringContaining('They belong to another workshop too')])
  })

  it('tells nothing secret over plain http: the page that installs the authority, and the authority', async () => {
    const plain = new URL(server.facts.install).origin
    const at = (path: string, init: RequestInit = {}) => fetch(plain + path, { redirect: 'manual', ...init })
    const page = await at('/install')
    expect([page.status, page.headers.get('content-type')]).toEqual([200, 'text/html; charset=utf-8'])
    expect(await page.text()).toContain('AB CD')
    const crt = new X509Certificate(Buffer.from(await (await at('/authority.crt')).arrayBuffer()))
    expect(crt.raw).toEqual(new X509Certificate(server.root).raw)
    expect([(await at('/')).status, (await at('/')).headers.get('location')]).toEqual([302, '/install'])
    for (const [method, path] of [['GET', 'session'], ['POST', 'session'], ['POST', 'owner'], ['GET', 'people']]) {
      const answer = await at(`/api/${path}`, { method, headers: { 'origin': plain, 'content-type': 'application/json' } })
      expect([path, answer.status, await answer.json()]).toEqual([path, 403, expect.objectContaining({
        data: { sentence: `Over plain http nothing secret is told. Open ${server.facts.addresses[0]} instead.` },
      })])
    }
  })

  it('takes up a new certificate while it runs', async () => {
    const { port } = new URL(server.facts.addresses[0]!)
    const shown = () => new Promise<string>((done, fail) => {
      const socket = connect({ host: HOST, port: Number(port), ca: server.root }, () => {
        done(socket.getPeerCertificate().serialNumber)
        socket.end()
      })
      socket.on('error', fail)
    })
    const before = await shown()
    expect(await server.renew()).toEqual(server.facts)
    expect(await shown()).not.toBe(before)
  })

  it('is on loopback under names of this machine alone', async () => {
    const asked = (host: string) => fetch(`${product.url}/api/session`, { headers: { host } }).then(r => r.status)
    expect(await asked(new URL(product.url).host)).toBe(200)
    // fetch does not let a host be set; a raw request does.
    const raw = await new Promise<string>((done) => {
      const { port } = new URL(product.url), socket = spawn('node', ['-e', `
        const s = require('net').connect(${port}, '127.0.0.1', () => s.write('GET /api/session HTTP/1.1\\r\\nHost: evil.example\\r\\nConnection: close\\r\\n\\r\\n'))
        s.on('data', d => process.stdout.write(d))
      `])
      let text = ''
      socket.stdout.on('data', (d: Buffer) => {
        text += d.toString()
      })
      socket.on('close', () => done(text))
    })
    expect(raw).toMatch(/^HTTP\/1\.1 400 [\s\S]*not an address of this server/)
  })
})
