import { spawn, spawnSync, type ChildProcess } from 'node:child_process'
import { existsSync, mkdtempSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs'
import { createServer } from 'node:net'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import { fileURLToPath } from 'node:url'
import { sql } from 'kysely'
import pg from 'pg'
import { afterEach, describe, expect, inject, it } from 'vitest'
import { fittingFolder, freePort, startCluster } from '../../bin/cluster.mjs'
import { freshDatabase } from './fresh'

const ROOT = resolve(fileURLToPath(new URL('../..', import.meta.url)))
const running: ChildProcess[] = []
afterEach(() => {
  for (const child of running.splice(0)) child.kill('SIGKILL')
})

interface Started { readonly child: ChildProcess, said: string, readonly ended: Promise<number> }

function start(args: readonly string[], env: NodeJS.ProcessEnv): Started {
  const child = spawn(join(ROOT, 'bin/start'), args, { cwd: '/', env: { ...process.env, ...env } })
  running.push(child)
  const started: Started = { child, said: '', ended: new Promise(done => child.once('exit', code => done(code ?? -1))) }
  for (const stream of [child.stdout, child.stderr]) stream!.on('data', (text: Buffer) => {
    started.said += text.toString()
  })
  return started
}
async function serving(started: Started): Promise<void> {
  await expect.poll(() => started.said, { interval: 50 }).toContain('Nine Ripples is at')
}
async function newDatabase(): Promise<string> {
  const name = `s${process.pid}_${Math.random().toString(36).slice(2, 8)}`
  const admin = new pg.Client({ connectionString: `${inject('databaseBase')}postgres` })
  await admin.connect()
  await admin.query(`create database ${name}`)
  await admin.end()
  return `${inject('databaseBase')}${name}`
}
const answers = (port: number) =>
  fetch(`http://127.0.0.1:${port}/api/session`).then(
    async r => await r.json() as { demo: boolean, needsOwner: boolean },
    () => undefined,
  )

describe('bin/start', () => {
  it('serves a database one already has, keeps what is in it, and Ctrl-C stops everything', async () => {
    const url = await newDatabase(), port = await freePort()
    const first = start(['--demo'], { DATABASE_URL: url, PORT: String(port) })
    await serving(first)
    expect(first.said).toContain(`http://127.0.0.1:${port}`)
    expect(await answers(port)).toMatchObject({ demo: true, needsOwner: false })
    first.child.kill('SIGINT')
    expect(await first.ended).toBe(0)
    expect(await answers(port)).toBeUndefined()

    const client = new pg.Client({ connectionString: url })
    await client.connect()
    const workshops = async () => (await client.query<{ id: string }>('select id from workshop')).rows.map(r => r.id)
    const before = await workshops()
    const second = start(['--demo'], { DATABASE_URL: url, PORT: String(port) })
    await serving(second)
    expect(await workshops()).toEqual(before)
    second.child.kill('SIGTERM')
    expect(await second.ended).toBe(0)
    const fresh = start(['--fresh-demo'], { DATABASE_URL: url, PORT: String(port) })
    await serving(fresh)
    expect(await workshops()).not.toEqual(before)
    expect(await workshops()).toHaveLength(1)
    await client.end()
    fresh.child.kill('SIGINT')
    await fresh.ended
  })

  it('without the demo waits for its owner', async () => {
    const port = await freePort()
    const own = start([], { DATABASE_URL: await newDatabase(), PORT: String(port) })
    await serving(own)
    expect(await answers(port)).toMatchObject({ demo: false, needsOwner: true })
    own.child.kill('SIGINT')
    await own.ended
  })

  it.each<[string, readonly string[], NodeJS.ProcessEnv, RegExp]>([
    ['an unknown word', ['--quickly'], {}, /“--quickly” is not understood/],
    ['a port that is none', [], { PORT: 'front door' }, /PORT=front door is not a port/],
    [
      'a database that does not answer',
      [],
      { DATABASE_URL: 'postgres://nobody:x@127.0.0.1:9/none' },
      /does not answer\. Is it running/,
    ],
  ])('%s ends in a plain sentence', async (_, args, env, words) => {
    const started = start(args, env)
    expect(await started.ended).toBe(1)
    expect(started.said).toMatch(words)
    expect(started.said).not.toContain('    at ')
  })

  it('records of a newer version, and a wrong password, end in a plain sentence', async () => {
    const { url, db, close } = await freshDatabase()
    await sql`insert into kysely_migration (name, timestamp) values ('9999-later', '2099-01-01')`.execute(db)
    await close()
    const wrong = url.replace(/:[^:@/]+@/, ':guessed@')
    for (const [at, words] of [[url, /written by a newer version/], [wrong, /refused the name or password/]] as const) {
      for (const BACKUPS of ['off', mkdtempSync(join(tmpdir(), 'backups-'))]) {
        const started = start([], { DATABASE_URL: at, BACKUPS })
        expect(await started.ended).toBe(1)
        expect(started.said).toMatch(words)
        expect(started.said).not.toContain('    at ')
      }
    }
  })

  it('a port in use is named', async () => {
    const server = createServer()
    const port = await new Promise<number>(done =>
      server.listen(0, '127.0.0.1', () => done((server.address() as { port: number }).port)),
    )
    const started = start([], { PORT: String(port) })
    expect(await started.ended).toBe(1)
    expect(started.said).toContain(`Port ${port} is in use by another program.`)
    server.close()
  })
})

describe('the private cluster', () => {
  const folder = () => join(mkdtempSync(join(tmpdir(), 'ripples-')), 'pg')

  it('listens on loopback only, wants its password, and a second start uses the one that runs', async () => {
    const place = folder()
    const first = await startCluster(place, { throwaway: true })
    const second = await startCluster(place, { throwaway: true })
    expect(second.url('x')).toBe(first.url('x'))
    second.stop()
    const client = new pg.Client({ connectionString: first.url('postgres') })
    await client.connect()
    const { rows } = await client.query<{ name: string, setting: string }>(
      'select name, setting from pg_settings where name in (\'listen_addresses\', \'unix_socket_directories\', \'data_checksums\') order by name',
    )
    expect(rows.map(r => r.setting)).toEqual(['on', '127.0.0.1', ''])
    await client.end()
    const stranger = new pg.Client({
      connectionString: first.url('postgres').replace(/workshop:[^@]+@/, 'workshop:guess@'),
    })
    await expect(stranger.connect()).rejects.toThrow(/password/)
    first.stop()
  })

  it('starts again after a power cut that left a stale process file', async () => {
    const place = folder()
    const cluster = await startCluster(place)
    const data = join(fittingFolder(place), 'cluster')
    const pid = readFileSync(join(data, 'postmaster.pid'), 'utf8').split('\n')[0]!
    spawnSync('kill', ['-9', pid])
    await expect.poll(() => existsSync(`/proc/${pid}/cmdline`) && readFileSync(`/proc/${pid}/cmdline`, 'utf8') !== '')
      .toBe(false)
    // Another program has that number by now.
    writeFileSync(
      join(data, 'postmaster.pid'),
      readFileSync(join(data, 'postmaster.pid'), 'utf8').replace(pid, String(process.pid)),
    )
    const again = await startCluster(place)
    const client = new pg.Client({ connectionString: again.url('postgres') })
    await client.connect()
    await client.end()
    again.stop()
    cluster.stop()
  })

  it.runIf(process.getuid?.() === 0)('goes elsewhere when the database’s user may not enter', () => {
    const closed = mkdtempSync(join(tmpdir(), 'ripples-')) // made with 0700, root’s
    mkdirSync(join(closed, 'project'))
    const place = fittingFolder(join(closed, 'project', 'pg'))
    expect(place).toMatch(/^\/var\/lib\/nine-ripples\/[0-9a-f]{12}$/)
    expect(existsSync(join(closed, 'project', 'pg'))).toBe(false)
    spawnSync('rmdir', [place])
  })
})
