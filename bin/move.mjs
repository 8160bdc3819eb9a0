// @ts-check
import { spawn } from 'node:child_process'
import { existsSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { startCluster } from './cluster.mjs'
import { homeNames, startHomes } from './homes.mjs'
import { giveUp, Plain, say } from './say.mjs'
import { checkNode, DATA, debianPackages, npmPackages, ROOT } from './setup.mjs'

const USAGE = `bin/move                   where each workshop has its records
bin/move WORKSHOP HOME     moves a workshop's records into that database, while it is in use; “first” is the first
WORKSHOP                   its name, or its id
HOMES, DATABASE_URL, NUXT_HOMES   as they were said to the server; what bin/start runs with is known`

/** In which database the server that runs keeps who people are. @returns {{ database: string }} */
function running() {
  const file = join(DATA, 'running.json')
  return { database: 'workshop', ...existsSync(file) ? JSON.parse(readFileSync(file, 'utf8')) : {} }
}

/** For whoever looks after the databases: docs/operate.md. */
async function main() {
  const args = process.argv.slice(2)
  if (args.includes('--help')) return say(USAGE)
  if (args.length !== 0 && args.length !== 2) throw new Plain(USAGE)
  checkNode()
  const own = process.env.DATABASE_URL
  if (!own) debianPackages({ chromium: false })
  npmPackages()
  const { database } = running()
  const cluster = own ? undefined : await startCluster(join(DATA, 'postgres'))
  const homes = await startHomes(homeNames())
  try {
    const done = spawn(join(ROOT, 'node_modules/.bin/tsx'), ['--tsconfig', 'tsconfig.tools.json', 'bin/move.ts', ...args], {
      cwd: ROOT,
      stdio: 'inherit',
      env: {
        ...process.env,
        DATABASE_URL: own ?? cluster?.url(database),
        NUXT_HOMES: process.env.NUXT_HOMES ?? JSON.stringify(homes.addresses),
      },
    })
    process.exitCode = await new Promise(over => done.once('exit', code => over(code ?? 1)))
  }
  finally {
    homes.stop()
    cluster?.stop()
  }
}

main().catch(giveUp)
