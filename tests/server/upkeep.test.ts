import { spawnSync } from 'node:child_process'
import { existsSync, mkdtempSync, readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import { fileURLToPath } from 'node:url'
import pg from 'pg'
import { describe, expect, inject, it } from 'vitest'
import { ask, member, overHttp, owner, PASSWORD, product, signIn, start } from './over-http'

/** What machines and whoever looks after the server are told: that it is well, what it did, and nobody’s secret. */
overHttp()

const text = async (path: string, headers: Record<string, string> = {}) => {
  const answer = await fetch(`${product.url}${path}`, { headers })
  return { status: answer.status, text: await answer.text(), type: answer.headers.get('content-type') ?? '' }
}
/** Those that were written down so far. */
const lines = () => product.log().split('\n').filter(l => l.startsWith('{')).map(l =>
  JSON.parse(l) as { id?: string, route?: string, status?: number, level: string })

describe('/health', () => {
  it('is well while the database answers, is not while it is gone, and is well again by itself', async () => {
    expect(JSON.parse((await text('/health')).text)).toMatchObject({ status: 'ok' })
    const admin = new pg.Client({ connectionString: `${inject('databaseBase')}postgres` })
    await admin.connect()
    const name = new URL(product.databaseUrl).pathname.slice(1)
    await admin.query(`alter database ${name} allow_connections false`)
    await admin.query('select pg_terminate_backend(pid) from pg_stat_activity where datname = $1', [name])
    const gone = await text('/health')
    expect([gone.status, JSON.parse(gone.text)]).toMatchObject([503, { status: 'database-away' }])
    await admin.query(`alter database ${name} allow_connections true`)
    await admin.end()
    await expect.poll(async () => (await text('/health')).status).toBe(200)
  })
})

describe('/metrics', () => {
  it('counts requests by route, entries and streams, in the open text format, on this machine alone', async () => {
    await start(member)
    const told = await text('/metrics')
    expect(told.type).toContain('text/plain')
    expect(told.text).toMatch(/^ripples_requests_total\{route="POST pours",status="200"\} \d+$/m)
    expect(told.text).toMatch(/^ripples_request_seconds_bucket\{le="0\.5",route="POST pours"\} \d+$/m)
    expect(told.text).toMatch(/^ripples_database_connections\{state="idle"\} \d+$/m)
    expect((await text('/metrics', { 'x-forwarded-for': '203.0.113.9' })).status).not.toBe(200)
  })
})

const VERIFIER = '/usr/bin/systemd-analyze', ROOT = resolve(fileURLToPath(new URL('../..', import.meta.url)))
describe.skipIf(!existsSync(VERIFIER))('the units', () => {
  it('are what systemd itself takes for whole', () => {
    const at = mkdtempSync(join(tmpdir(), 'units-')), from = join(ROOT, 'docs/operate')
    for (const name of readdirSync(from).filter(n => /\.(service|timer)$/.test(n))) {
      const text = readFileSync(join(from, name), 'utf8').replaceAll('/srv/nine-ripples', ROOT)
      writeFileSync(join(at, name), text)
    }
    for (const name of readdirSync(at)) {
      const { status, stderr } = spawnSync(VERIFIER, ['verify', '--man=no', join(at, name)], { encoding: 'utf8' })
      expect([name, status, stderr]).toEqual([name, 0, ''])
    }
  })
})

describe('the log', () => {
  it('has a line for each request, by the id that its answer bears and the name of its route', async () => {
    const answer = await fetch(`${product.url}/api/plans`, { headers: { cookie: owner } }), id = answer.headers.get('x-request-id')
    expect(id).toMatch(/^[0-9a-f-]{36}$/)
    await expect.poll(() => lines().find(l => l.id === id)).toMatchObject({ route: 'GET plans', status: 200, level: 'info' })
  })

  it('has no secret in it: no password, no cookie, no link, no address', async () => {
    const link = (await ask(product, 'POST', 'links', { cookie: owner, body: { kind: 'wall', name: 'Front' } })).body.token as string
    await ask(product, 'GET', `wall/${link}`)
    await signIn('first@example.org')
    await signIn('first@example.org', 'not the word at all')
    await expect.poll(() => lines().filter(l => l.route === 'POST session').length).toBeGreaterThanOrEqual(2)
    await expect.poll(() => lines().some(l => l.route === 'GET wall/:token')).toBe(true)
    for (const secret of [PASSWORD, 'not the word at all', link, 'first@example.org', owner.split('=')[1]!])
      expect(product.log()).not.toContain(secret)
  })
})
