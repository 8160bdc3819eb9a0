// @ts-check
import { existsSync, writeFileSync } from 'node:fs'
import { join, resolve } from 'node:path'
import { startCluster } from './cluster.mjs'
import { giveUp, Plain, say } from './say.mjs'
import { checkNode, DATA, debianPackages, npmPackages } from './setup.mjs'

const USAGE = `bin/restore            what backups there are
bin/restore newest     puts the newest in the place of the records; what is there now stays under another name
bin/restore FILE       the same with this one
BACKUPS=…              where they are; ~/.local/share/nine-ripples/backups unless said
DATABASE_URL=…         where the records are, if not in the product's own database`

/** @param {typeof import('./backups.mjs')} at @param {string} which */
function chosen({ backups, backupFolder }, which) {
  const all = backups()
  const found = which === 'newest' ? all[0] : all.find(b => b.file === resolve(which) || b.file.endsWith(`/${which}`))
  if (found) return found
  throw new Plain(which === 'newest'
    ? `There is no backup in ${backupFolder()}.`
    : `“${which}” is no backup in ${backupFolder()}. Both its files have to be there, .dump and .json; BACKUPS=… says where.`)
}

/** A machine that has no key of its own takes the backup's; another one stays. @param {string | undefined} key */
function takeUpKey(key) {
  const file = join(DATA, 'session-key')
  if (!key || process.env.NUXT_SERVER_KEY || existsSync(file)) return
  writeFileSync(file, key, { mode: 0o600 })
}

async function main() {
  const args = process.argv.slice(2), [which] = args
  if (args.includes('--help')) return say(USAGE)
  checkNode()
  debianPackages({ chromium: false })
  npmPackages()
  const at = await import('./backups.mjs'), { backups, backupFolder, backupWords, restoreBackup } = at
  if (!which) {
    const all = backups()
    if (all.length === 0) return say(`There is no backup in ${backupFolder()} yet.`)
    return say(`${all.map(backupWords).join('\n')}\n\n${USAGE}`)
  }
  const backup = chosen(at, which)
  const own = process.env.DATABASE_URL, cluster = own ? undefined : await startCluster(join(DATA, 'postgres'))
  const url = own ?? /** @type {NonNullable<typeof cluster>} */ (cluster).url('workshop')
  try {
    const former = await restoreBackup(url, backup)
    takeUpKey(backup.serverKey)
    say(`The records are as they were at ${new Date(backup.made).toLocaleString('en-GB')}, row by row.`)
    if (former) say(`What was there before stays in the database “${former}”.`)
    say('Everybody signs in anew. What their browsers still hold is sent again by itself.')
  }
  finally {
    cluster?.stop()
  }
}

main().catch(giveUp)
