// @ts-check
import { spawn } from 'node:child_process'
import { mkdirSync } from 'node:fs'
import { setPriority } from 'node:os'
import { join } from 'node:path'
import { pathToFileURL } from 'node:url'
import { startCluster } from './cluster.mjs'
import { choosePort } from './port.mjs'
import { giveUp, Plain, say } from './say.mjs'
import { checkNode, DATA, debianPackages, npmPackages, ROOT } from './setup.mjs'

/**
 * The application as it is worked on: pages and core reload as they are saved. It has a database and a demo workshop of
 * its own
 * under `.data/dev`, apart from what bin/start keeps, and ends them with itself.
 */

const HOME = process.env.DEV_FOLDER ?? join(DATA, 'dev')
const program = (/** @type {string} */ name) => join(ROOT, 'node_modules/.bin', name)

/**
 * Tables made and the demo filled in. Runs beside the development server, which asks for them with its first page.
 * @param {string} url
 */
function makeReady(url) {
  return new Promise((resolve, reject) => {
    const args = ['--tsconfig', 'tsconfig.tools.json', 'bin/database.ts', '--create', '--demo']
    const seed = spawn(program('tsx'), args, {
      cwd: ROOT, env: { ...process.env, DATABASE_URL: url }, stdio: ['ignore', 'inherit', 'inherit'],
    })
    // The server has the first turn: without it there is nothing to show the demo in.
    if (seed.pid !== undefined) setPriority(seed.pid, 10)
    seed.once(
      'exit',
      code => code === 0 ? resolve(undefined) : reject(new Plain('The database could not be made ready.')),
    )
  })
}

/**
 * Ends a server with everything it started, and waits for it. @param {import('node:child_process').ChildProcess} child
 */
function end(child) {
  return new Promise((resolve) => {
    if (child.exitCode !== null || child.signalCode !== null || child.pid === undefined) return resolve(undefined)
    child.once('exit', () => resolve(undefined))
    const group = -child.pid
    const signal = (/** @type {NodeJS.Signals} */ name) => {
      try {
        process.kill(group, name)
      }
      catch { /* it has gone meanwhile */ }
    }
    signal('SIGTERM')
    setTimeout(() => signal('SIGKILL'), 5000).unref()
  })
}

/** The development server itself. @param {string} databaseUrl @param {number} port */
function serve(databaseUrl, port) {
  return spawn(process.execPath, [
    // Fewer, larger collections: a seventh of the time to the first page.
    '--max-semi-space-size=64',
    join(ROOT, 'node_modules/nuxt/bin/nuxt.mjs'), 'dev', '--host', '127.0.0.1', '--port', String(port), '--no-fork',
  ], {
    cwd: ROOT, detached: true, stdio: ['ignore', 'inherit', 'inherit'],
    env: {
      ...process.env,
      NUXT_DATABASE_URL: databaseUrl,
      NUXT_DEMO_MODE: 'true',
      // Given here, it is not written to a file.
      NUXT_SERVER_KEY: 'only for work on this machine, never elsewhere',
      // What it makes of the sources lies apart from what the types and the build are read from.
      NUXT_DEV_FOLDER: join(HOME, 'nuxt'),
      NUXT_TELEMETRY_DISABLED: '1',
      // What reads files that are brought in is run as it is written: server/imports/running.ts.
      IMPORTS_THREAD: pathToFileURL(join(ROOT, 'server/imports/thread.ts')).href,
      TSX_TSCONFIG_PATH: join(ROOT, 'tsconfig.tools.json'),
    },
  })
}

async function main() {
  checkNode()
  debianPackages({ chromium: false })
  npmPackages()
  mkdirSync(HOME, { recursive: true })
  const port = await choosePort('127.0.0.1', 4800)
  /** @type {import('node:child_process').ChildProcess | undefined} */
  let server
  /** @type {{ stop: () => void } | undefined} */
  let cluster
  let ending = false
  const stop = async (/** @type {number} */ code) => {
    if (ending) return
    ending = true
    if (server) await end(server)
    cluster?.stop()
    process.exit(code)
  }
  for (const signal of /** @type {const} */ (['SIGINT', 'SIGTERM', 'SIGHUP'])) process.on(signal, () => void stop(0))
  try {
    // Both begin at once: the server asks for its database only with the first page.
    const started = await startCluster(join(HOME, 'postgres'), {
      own: true,
      known: (url) => {
        server = serve(url('demo'), port)
        server.once('exit', code => void stop(code ?? 1))
      },
    })
    cluster = started
    await makeReady(started.url('demo'))
  }
  catch (error) {
    if (server) await end(server)
    cluster?.stop()
    throw error
  }
  say(`\n  The demo workshop is ready for http://127.0.0.1:${port}\n  Ctrl-C stops it, and its database with it.\n`)
}

main().catch(giveUp)
