// @ts-check
import { spawn, spawnSync } from 'node:child_process'
import { randomBytes } from 'node:crypto'
import { existsSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { startCluster } from './cluster.mjs'
import { choosePort } from './port.mjs'
import { buildIfChanged, checkNode, DATA, debianPackages, npmPackages, ROOT } from './setup.mjs'
import { giveUp, Plain, say } from './say.mjs'

const USAGE = `bin/start            the demo workshop, with all set-up
bin/start --fresh-demo   the demo workshop made anew
bin/start --no-demo      your own workshop, empty at first
DATABASE_URL=…           use a database you already have (your own workshop there; add --demo for the demo)
HOST, PORT               where to serve; 127.0.0.1 and 4780 unless said`

const KNOWN = ['--fresh-demo', '--no-demo', '--demo', '--help']

function sessionPassword() {
  const file = join(DATA, 'session-key')
  if (!existsSync(file)) writeFileSync(file, randomBytes(36).toString('base64url'), { mode: 0o600 })
  return readFileSync(file, 'utf8')
}

/** The least user that can read the built server, when started as root. */
function lesserUser() {
  if (process.getuid?.() !== 0) return {}
  const [uid, gid] = ['-u', '-g'].map(flag => Number(spawnSync('id', [flag, 'nobody'], { encoding: 'utf8' }).stdout))
  const reads
    = spawnSync('runuser', [
      '-u',
      'nobody',
      '--',
      process.execPath,
      '-e',
      `require('fs').readFileSync(${JSON.stringify(join(ROOT, '.output/server/index.mjs'))})`,
    ], { cwd: '/' }).status === 0
  return uid && gid && reads ? { uid, gid } : {}
}

/** @param {string} url @param {string[]} flags */
function readyDatabase(url, flags) {
  const seed = spawnSync(
    join(ROOT, 'node_modules/.bin/tsx'),
    ['--tsconfig', 'tsconfig.tools.json', 'bin/database.ts', ...flags],
    { cwd: ROOT, env: { ...process.env, DATABASE_URL: url }, encoding: 'utf8' },
  )
  if (seed.status !== 0) throw new Plain(seed.stderr.trim() || 'The database could not be made ready.')
}

/** @param {string} host @param {number} port @param {string} url @param {boolean} demo */
function startServer(host, port, url, demo) {
  return spawn(process.execPath, [join(ROOT, '.output/server/index.mjs')], {
    cwd: '/',
    stdio: ['ignore', 'ignore', 'inherit'],
    detached: true,
    ...lesserUser(),
    env: {
      ...process.env,
      NODE_ENV: 'production',
      NITRO_HOST: host,
      NITRO_PORT: String(port),
      HOST: host,
      PORT: String(port),
      NITRO_SHUTDOWN_TIMEOUT: '2000',
      NUXT_DATABASE_URL: url,
      NUXT_DEMO_MODE: String(demo),
      NUXT_SESSION_PASSWORD: process.env.NUXT_SESSION_PASSWORD ?? sessionPassword(),
    },
  })
}

/**
 * Stops the server when it is asked to, and all with it.
 * @param {import('node:child_process').ChildProcess} server @param {() => void} ended
 */
function stopTogether(server, ended) {
  let stopping = false
  const stop = () => {
    if (stopping) return
    stopping = true
    server.kill('SIGTERM')
  }
  for (const signal of /** @type {const} */ (['SIGINT', 'SIGTERM', 'SIGHUP'])) process.on(signal, stop)
  server.once('exit', (code) => {
    ended()
    if (stopping) say('Stopped.')
    process.exit(stopping ? 0 : code ?? 1)
  })
}

/** @param {string} address */
async function answers(address) {
  const asked = `${address.replace('0.0.0.0', '127.0.0.1')}/api/session`
  for (let tries = 0; !await fetch(asked).then(r => r.ok, () => false); tries++) {
    if (tries > 300) throw new Plain('The server did not answer within a minute.')
    await new Promise(resolve => setTimeout(resolve, 50 + tries))
  }
}

async function main() {
  const args = process.argv.slice(2)
  const unknown = args.find(a => !KNOWN.includes(a))
  if (unknown || args.includes('--help')) {
    say(USAGE)
    if (unknown) throw new Plain(`\n“${unknown}” is not understood.`)
    return
  }
  const own = process.env.DATABASE_URL
  const demo = args.includes('--demo') || args.includes('--fresh-demo') || (!own && !args.includes('--no-demo'))
  checkNode()
  const host = process.env.HOST ?? '127.0.0.1'
  const port = await choosePort(host, 4780)
  if (!own) debianPackages({ chromium: false })
  npmPackages()
  const cluster = own ? undefined : await startCluster(join(DATA, 'postgres'))
  const url = own ?? /** @type {NonNullable<typeof cluster>} */ (cluster).url(demo ? 'demo' : 'workshop')
  try {
    buildIfChanged()
    const seed = args.includes('--fresh-demo') ? '--fresh-demo' : '--demo'
    readyDatabase(url, [...(own ? [] : ['--create']), ...(demo ? [seed] : [])])
    stopTogether(startServer(host, port, url, demo), () => cluster?.stop())
    const address = `http://${host.includes(':') ? `[${host}]` : host}:${port}`
    await answers(address)
    const which = demo ? '  (the demo workshop, Saltmarsh Lane)' : ''
    say(`\n  Nine Ripples is at ${address}${which}\n  Ctrl-C stops it; the records stay.\n`)
  }
  catch (error) {
    cluster?.stop()
    throw error
  }
}

main().catch(giveUp)
