import { spawn, spawnSync, type ChildProcess } from 'node:child_process'
import { existsSync } from 'node:fs'
import { join, resolve } from 'node:path'
import { fileURLToPath } from 'node:url'
import { freePort } from '../bin/cluster.mjs'

const ROOT = resolve(fileURLToPath(new URL('..', import.meta.url)))
let made = 0
/** So much of its log is held, characters. */
const MOST_LOG = 1_000_000

/**
 * The built product running on a database of its own. It can be killed and started again at the same address, as
 * machines do.
 */
export interface Product {
  readonly url: string
  readonly databaseUrl: string /** Of the server that runs now. */
  readonly pid: () => number | undefined
  /** What it wrote to its log since it was started. */
  readonly log: () => string
  /** @param build another build than the one that ran before, as after an upgrade */
  start(build?: string): Promise<void>
  kill(): Promise<void>
}

/** @param base address of a PostgreSQL cluster, ending in a slash. */
export async function launch(
  base: string,
  { demo, homes = {} }: {
    readonly demo: boolean
    /** Databases besides its own, into which workshops may be moved. */
    readonly homes?: Readonly<Record<string, string>>
  },
): Promise<Product> {
  const entry = join(ROOT, '.output/server/index.mjs')
  if (!existsSync(entry)) throw new Error('The product is not built yet: run bin/test, or npx nuxt build.')
  const databaseUrl = `${base}p${process.pid}_${Date.now().toString(36)}_${++made}`
  const seeded = spawnSync(join(ROOT, 'node_modules/.bin/tsx'), [
    '--tsconfig',
    'tsconfig.tools.json',
    'bin/database.ts',
    '--create',
    ...(demo ? ['--demo'] : []),
  ], { cwd: ROOT, env: { ...process.env, DATABASE_URL: databaseUrl }, encoding: 'utf8' })
  if (seeded.status !== 0) throw new Error(seeded.stderr)
  const port = await freePort()
  const url = `http://127.0.0.1:${port}`
  let server: ChildProcess | undefined, logged = ''

  async function start(build?: string): Promise<void> {
    server = spawn(process.execPath, [entry], {
      stdio: ['ignore', 'pipe', 'inherit'],
      env: {
        ...process.env,
        NODE_ENV: 'production',
        NITRO_HOST: '127.0.0.1',
        NITRO_PORT: String(port),
        NITRO_SHUTDOWN_TIMEOUT: '500',
        NUXT_DATABASE_URL: databaseUrl,
        NUXT_HOMES: JSON.stringify(homes),
        NUXT_DEMO_MODE: String(demo),
        NUXT_PUBLIC_CHECK_ANSWERS: 'true',
        ...build && { NUXT_APP_BUILD_ID: build },
        NUXT_SERVER_KEY: 'only for tests: thirty-two characters and more',
      },
    })
    logged = ''
    server.stdout!.on('data', (text: Buffer) => {
      logged = (logged + text.toString()).slice(-MOST_LOG)
    })
    const deadline = Date.now() + 240_000
    while (!await fetch(`${url}/api/session`).then(r => r.ok, () => false)) {
      if (Date.now() > deadline || server.exitCode !== null) throw new Error('The built server did not answer.')
      await new Promise(done => setTimeout(done, 50))
    }
  }
  async function kill(): Promise<void> {
    const ending = server
    server = undefined
    if (!ending || ending.exitCode !== null) return
    await new Promise<void>((done) => {
      ending.once('exit', () => done())
      ending.kill('SIGKILL')
    })
  }
  await start()
  return { url, databaseUrl, pid: () => server?.pid, log: () => logged, start, kill }
}
