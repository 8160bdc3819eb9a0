// @ts-check
import { spawnSync } from 'node:child_process'
import { existsSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { startCluster } from './cluster.mjs'
import { giveUp, Plain, say } from './say.mjs'
import { checkNode, DATA, debianPackages, npmPackages, ROOT } from './setup.mjs'

const USAGE = `bin/owner                  who is here, and in which workshops
bin/owner reset ADDRESS    a link to a new password, good for an hour
bin/owner owner ADDRESS    makes them an owner of their workshops again, also when they were taken out
bin/owner invite           a link to open a workshop here (a server started with --many)
DATABASE_URL=…             where the records are, if not in the product's own database`

/** Where the server that runs keeps its records, and its addresses. */
function running() {
  const file = join(DATA, 'running.json')
  const none = { addresses: /** @type {string[]} */ ([]), database: 'workshop' }
  return existsSync(file) ? { ...none, ...JSON.parse(readFileSync(file, 'utf8')) } : none
}

/** For whoever sits at the machine itself: helps people back in when nobody else can. */
async function main() {
  const args = process.argv.slice(2), [act, address] = args
  if (args.includes('--help')) return say(USAGE)
  if (act && !['reset', 'owner', 'invite'].includes(act)) throw new Plain(`${USAGE}\n\n“${act}” is not understood.`)
  if ((act === 'reset' || act === 'owner') && !address) throw new Plain(`Say for whom: bin/owner ${act} ADDRESS`)
  checkNode()
  if (!process.env.DATABASE_URL) debianPackages({ chromium: false })
  npmPackages()
  const cluster = process.env.DATABASE_URL ? undefined : await startCluster(join(DATA, 'postgres'))
  const { addresses, database } = running()
  try {
    const done = spawnSync(join(ROOT, 'node_modules/.bin/tsx'), [
      '--tsconfig', 'tsconfig.tools.json', 'bin/owner.ts', ...args,
    ], {
      cwd: ROOT,
      encoding: 'utf8',
      env: {
        ...process.env,
        DATABASE_URL: process.env.DATABASE_URL ?? cluster?.url(database),
        ADDRESS: addresses[0] ?? 'http://127.0.0.1:4780',
      },
    })
    if (done.status !== 0) throw new Plain(done.stderr.trim() || 'That did not work.')
    say(done.stdout.trimEnd())
  }
  finally {
    cluster?.stop()
  }
}

main().catch(giveUp)
