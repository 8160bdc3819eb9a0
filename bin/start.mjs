// @ts-check
import { spawn, spawnSync } from 'node:child_process'
import { randomBytes, randomInt } from 'node:crypto'
import { chmodSync, existsSync, mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { startCluster } from './cluster.mjs'
import { homeNames, startHomes } from './homes.mjs'
import { wantedPort } from './port.mjs'
import { buildIfChanged, checkNode, DATA, debianPackages, npmPackages, ROOT } from './setup.mjs'
import { giveUp, Plain, say } from './say.mjs'

const USAGE = `bin/start            the demo workshop, with all set-up
bin/start --fresh-demo   the demo workshop made anew
bin/start --no-demo      your own workshop, empty at first
bin/start --share        your own workshop, for phones on this network too
bin/start --many         several workshops; bin/owner invites to the first of each
DATABASE_URL=…           use a database you already have (your own workshop there; add --demo for the demo)
BACKUPS=…                where the nightly backups are kept; “off” where somebody else makes them
HOMES="second …"         databases beside the first, into which bin/move moves workshops
HOST, PORT               where to serve; 127.0.0.1 and 4780 unless said
SHARE_PORT, SHARE_PLAIN_PORT  where phones are served; 4743 and 4723 unless said`

const KNOWN = ['--fresh-demo', '--no-demo', '--demo', '--share', '--many', '--help']

/** What secrets in the database are sealed with; readable by whoever starts the product, and nobody else. */
function serverKey() {
  const file = join(DATA, 'session-key')
  if (!existsSync(file)) writeFileSync(file, randomBytes(36).toString('base64url'), { mode: 0o600 })
  chmodSync(file, 0o600)
  return readFileSync(file, 'utf8')
}

/** Told to nobody but who stands before this screen; without letters that read like others. */
function ownerCode() {
  const letters = 'ABCDEFGHJKMNPQRSTUVWXYZ23456789'
  return Array.from({ length: 8 }, () => letters[randomInt(letters.length)]).join('')
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

/** What the server says of its requests and errors: ten files of ten megabytes, the oldest written over. */
async function openLog() {
  const { createStream } = await import('rotating-file-stream'), path = join(DATA, 'logs')
  mkdirSync(path, { recursive: true, mode: 0o700 })
  const log = createStream('nine-ripples.log', { path, size: '10M', maxFiles: 10, mode: 0o600 })
  // A disk that is full ends no pour: lines are lost then, and nothing else.
  log.on('error', () => {})
  return log
}

/** One backup before the records are brought up to date, and one every night. @param {string} url */
async function keepBackups(url) {
  const { backUpBeforeUpgrade, backUpNightly } = await import('./backups.mjs')
  const serverKeyNow = process.env.NUXT_SERVER_KEY ?? serverKey()
  const newest = readdirSync(join(ROOT, 'server/store/migrations')).sort().at(-1)?.replace(/\.ts$/, '') ?? ''
  const before = await backUpBeforeUpgrade(url, newest, { serverKey: serverKeyNow })
  if (before) say(`The records are brought up to date. As they were before, they are kept in ${before.file}`)
  return backUpNightly(url, { serverKey: serverKeyNow, tell: say })
}

/**
 * @param {{ host: string, port: number, tries: number, url: string, homes: Record<string, string>, demo: boolean,
 *   many: boolean, code: string, log: NodeJS.WritableStream }} as
 */
function startServer({ host, port, tries, url, homes, demo, many, code, log }) {
  const server = spawn(process.execPath, [join(ROOT, '.output/server/index.mjs')], {
    cwd: '/',
    stdio: ['ignore', 'pipe', 'inherit', 'ipc'],
    detached: true,
    ...lesserUser(),
    env: {
      ...process.env,
      NODE_ENV: 'production',
      NITRO_HOST: host,
      NITRO_PORT: String(port),
      NITRO_PORT_TRIES: String(tries),
      NITRO_SHUTDOWN_TIMEOUT: '2000',
      NUXT_DATABASE_URL: url,
      ...Object.keys(homes).length > 0 && { NUXT_HOMES: JSON.stringify(homes) },
      NUXT_DEMO_MODE: String(demo),
      NUXT_MANY: String(many),
      NUXT_OWNER_CODE: code,
      NUXT_SERVER_KEY: process.env.NUXT_SERVER_KEY ?? serverKey(),
    },
  })
  server.stdout?.pipe(log)
  return server
}

/**
 * The next thing of this kind that the server tells. @param {import('node:child_process').ChildProcess} server
 * @param {'listening' | 'shared'} what @returns {Promise<any>}
 */
function told(server, what) {
  return new Promise((resolve, reject) => {
    const hear = (/** @type {any} */ message) => {
      if (message?.fault) reject(new Plain(message.fault.code === 'EADDRINUSE'
        ? `Port ${message.fault.port} is in use by another program. Choose another with PORT=… (SHARE_PORT=… for phones), or leave it out.`
        : `The server could not open port ${message.fault.port ?? ''} (${message.fault.code}).`))
      if (!message?.[what]) return
      server.off('message', hear)
      resolve(message[what])
    }
    server.on('message', hear)
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

/** @param {string} address @returns {Promise<{ needsOwner: boolean }>} */
async function answers(address) {
  const asked = `${address.replace('0.0.0.0', '127.0.0.1').replace('[::]', '[::1]')}/api/session`
  for (let tries = 0; ; tries++) {
    // Where nothing secret is told over plain http, a refusal is an answer too.
    const answer = await fetch(asked).then(r => r.ok || r.status === 403 ? r.json() : undefined, () => undefined)
    if (answer) return { needsOwner: answer.needsOwner === true }
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
  const own = process.env.DATABASE_URL, share = args.includes('--share'), many = args.includes('--many')
  const plain = !own && !share && !many && !args.includes('--no-demo')
  const demo = args.includes('--demo') || args.includes('--fresh-demo') || plain
  checkNode()
  const host = process.env.HOST ?? '127.0.0.1', { port, tries } = await wantedPort(host, 4780)
  if (!own) debianPackages({ chromium: false })
  npmPackages()
  const cluster = own ? undefined : await startCluster(join(DATA, 'postgres'))
  const url = own ?? /** @type {NonNullable<typeof cluster>} */ (cluster).url(demo ? 'demo' : 'workshop')
  const homes = await startHomes(homeNames()).catch((error) => {
    cluster?.stop()
    throw error
  })
  try {
    buildIfChanged()
    for (const home of Object.values(homes.addresses)) readyDatabase(home, ['--create'])
    const all = demo || process.env.BACKUPS === 'off' ? [] : [url, ...Object.values(homes.addresses)]
    const backups = await Promise.all(all.map(keepBackups))
    const seed = args.includes('--fresh-demo') ? '--fresh-demo' : '--demo'
    readyDatabase(url, [...(own ? [] : ['--create']), ...(demo ? [seed] : [])])
    const code = ownerCode(), server = startServer({
      host, port, tries, url, homes: homes.addresses, demo, many, code, log: await openLog(),
    })
    cluster?.keep()
    homes.keep()
    stopTogether(server, () => {
      for (const stop of backups) stop()
      homes.stop()
      cluster?.stop()
    })
    await serve(server, { host, url, demo, share, code })
  }
  catch (error) {
    homes.stop()
    cluster?.stop()
    throw error
  }
}

/**
 * Says where the server is once it is there, and opens its doors on the network if it is to be shared.
 * @param {import('node:child_process').ChildProcess} server
 * @param {{ host: string, url: string, demo: boolean, share: boolean, code: string }} as
 */
async function serve(server, { host, url, demo, share, code }) {
  const { port } = await told(server, 'listening')
  const address = `http://${host.includes(':') ? `[${host}]` : host}:${port}`
  const { needsOwner } = await answers(address)
  const which = demo ? '  (the demo workshop, Saltmarsh Lane)' : ''
  say(`\n  Nine Ripples is at ${address}${which}`)
  /** @type {string[]} */
  let addresses = []
  if (share) {
    // Loaded only where it is wanted: certificates are no part of a start on loopback.
    const { keepShared, saySharing } = await import('./share.mjs')
    const first = told(server, 'shared')
    await keepShared(order => server.connected && server.send({ share: order }))
    const facts = await first
    addresses = facts.addresses
    await saySharing(facts)
    if (needsOwner) say(`  The first owner, from a phone, types this code:  ${code.slice(0, 4)} ${code.slice(4)}\n`)
  }
  say('  Ctrl-C stops it; the records stay.\n')
  // For bin/owner, which prints links, and bin/move.
  const database = new URL(url).pathname.slice(1)
  writeFileSync(join(DATA, 'running.json'), JSON.stringify({ addresses: [...addresses, address], database }), { mode: 0o600 })
}

main().catch(giveUp)
