// @ts-check
import { join } from 'node:path'
import { choosePort } from '../port.mjs'
import { giveUp, Plain, say } from '../say.mjs'
import { buildIfChanged, checkNode, DATA, debianPackages, npmPackages } from '../setup.mjs'
import { startSeveral } from './several.mjs'

const USAGE = `bin/cluster            three databases under Patroni, two servers of the product, a proxy before them
bin/cluster --demo     the same with the demo workshop
APPS=…                 how many servers of the product; 2 unless said
PORT=…                 where browsers reach it; 4790 unless said
CLUSTER=…              where it is kept; .data/cluster unless said
All on loopback: a rehearsal of what docs/operate.md spreads over machines.`

/** A database that ended stays away for longer than it takes the others to go on without it. */
const AGAIN_MS = 40_000

/** @param {Awaited<ReturnType<typeof startSeveral>>} several */
async function whereAll(several) {
  const databases = await several.databases()
  const others = several.names.filter(n => !/^db\d/.test(n)).map(n => `${n} ${several.isUp(n) ? 'up' : 'gone'}`)
  return [...databases.map(d => `${d.name} ${d.role === 'away' ? d.state : d.role}${d.state === 'in step' ? ', in step' : ''}`), ...others]
}

async function main() {
  const args = process.argv.slice(2), unknown = args.find(a => a !== '--demo')
  if (unknown) {
    say(USAGE)
    if (unknown !== '--help') throw new Plain(`\n“${unknown}” is not understood.`)
    return
  }
  checkNode()
  const port = await choosePort('127.0.0.1', 4790), apps = Number(process.env.APPS ?? 2)
  if (!Number.isInteger(apps) || apps < 1 || apps > 16) throw new Plain('APPS is a number from 1 to 16.')
  debianPackages({ chromium: false, several: true })
  npmPackages()
  buildIfChanged()
  const demo = args.includes('--demo')
  const several = await startSeveral(process.env.CLUSTER ?? join(DATA, demo ? 'cluster-demo' : 'cluster'), {
    apps, demo, product: port, againAfterMs: AGAIN_MS, tell: line => say(`  ${line}`),
  })
  say(`\n  Nine Ripples is at ${several.url}, behind ${apps} servers and three databases`)
  say(`  What each says is in ${several.folder}. Ctrl-C stops all; the records stay.\n`)
  let shown = ''
  const show = async () => {
    const now = (await whereAll(several)).join('  ·  ')
    if (now !== shown) say(`  ${new Date().toTimeString().slice(0, 8)}  ${now}`)
    shown = now
  }
  await show()
  const looking = setInterval(() => void show(), 2000)
  let stopping = false
  const stop = async () => {
    if (stopping) return
    stopping = true
    clearInterval(looking)
    await several.stop()
    say('Stopped.')
    process.exit(0)
  }
  for (const signal of /** @type {const} */ (['SIGINT', 'SIGTERM', 'SIGHUP'])) process.on(signal, () => void stop())
}

main().catch(giveUp)
