import { readdir, rm, stat } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { defineNitroPlugin } from '#imports'
import { FOLDER } from '../archive/packed'
import { asOwner } from '../database'
import { tidy } from '../store/tidying'

const HOUR_MS = 3_600_000

/** Folders of archives that a kill left behind. A packing that runs is younger than a day. */
async function tidyFiles(): Promise<void> {
  for (const name of (await readdir(tmpdir())).filter(n => n.startsWith(FOLDER))) {
    const path = join(tmpdir(), name), { mtimeMs } = await stat(path)
    if (Date.now() - mtimeMs > 24 * HOUR_MS) await rm(path, { recursive: true, force: true })
  }
}

/** Once an hour. That it did not work today is no trouble: the next hour tries again. */
export default defineNitroPlugin((nitro) => {
  const work = () => void asOwner(tidy).then(tidyFiles).catch(() => {})
  const timer = setInterval(work, HOUR_MS)
  timer.unref()
  nitro.hooks.hook('close', () => clearInterval(timer))
})
