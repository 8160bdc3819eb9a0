// @ts-check
import { existsSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { startCluster } from './cluster.mjs'
import { giveUp, Plain, say } from './say.mjs'
import { checkNode, DATA, debianPackages, npmPackages } from './setup.mjs'

const USAGE = `bin/backup             a backup now, read back before it counts; kept until you delete it
bin/backup --nightly   the same, and older nightly ones are taken away: 7 daily and 4 weekly stay
bin/backup --list      what there is
BACKUPS=…              where they are kept; ~/.local/share/nine-ripples/backups unless said
DATABASE_URL=…         what to back up, if not the product's own database`

/** The key that second factors are sealed with: without it nobody who has one could sign in after a restore. */
export function keptServerKey() {
  const file = join(DATA, 'session-key')
  return process.env.NUXT_SERVER_KEY ?? (existsSync(file) ? readFileSync(file, 'utf8') : undefined)
}

async function main() {
  const args = process.argv.slice(2), unknown = args.find(a => !['--nightly', '--list', '--help'].includes(a))
  if (args.includes('--help')) return say(USAGE)
  if (unknown) throw new Plain(`${USAGE}\n\n“${unknown}” is not understood.`)
  checkNode()
  debianPackages({ chromium: false })
  npmPackages()
  // Stands on packages that a new machine has only now.
  const { backupFolder, backups, backupWords, ...at } = await import('./backups.mjs')
  if (args.includes('--list')) {
    const all = backups()
    return say(all.length > 0 ? all.map(backupWords).join('\n') : `There is no backup in ${backupFolder()} yet.`)
  }
  const own = process.env.DATABASE_URL, cluster = own ? undefined : await startCluster(join(DATA, 'postgres'))
  const url = own ?? /** @type {NonNullable<typeof cluster>} */ (cluster).url('workshop')
  try {
    const nightly = args.includes('--nightly'), serverKey = keptServerKey()
    const made = await at.makeBackup(url, { why: nightly ? 'nightly' : 'by-hand', ...serverKey && { serverKey } })
    if (nightly) at.takeAwayOld(at.databaseOf(url))
    const pours = made.tables.pour?.split(' ')[0] ?? '0'
    say(`Kept and read back: ${pours} pours, ${at.sizeWords(made.bytes)}, in ${made.file}`)
    say('It holds what people wrote and their passwords’ hashes: keep it where only you can read it.')
  }
  finally {
    cluster?.stop()
  }
}

main().catch(error => giveUp(error?.code === '3D000' ? new Plain('There are no records here yet to back up.') : error))
