import { createReadStream, createWriteStream } from 'node:fs'
import { mkdtemp, rm, stat } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { pipeline } from 'node:stream/promises'
import PQueue from 'p-queue'
import type { ReadStream } from 'node:fs'
import { HERE, type Place } from '../store/homes'
import type { Db } from '../store/open'
import { archiveOf } from './write'
import { Refused } from '../refused'

/** Folders that an archive is packed or taken in through begin with this; what a kill left of them is tidied away. */
export const FOLDER = 'ripples-archive-'

/** Each holds a connection to the database while it is packed, and none while somebody fetches it. */
const packing = new PQueue({ concurrency: 2 })
const MOST_WAITING = 6

/**
 * A whole workshop packed into a file, which goes when it was read or when nobody wants it any more: a slow download
 * holds no connection.
 * @param wanted whether whoever asked is still there
 * @returns undefined when nobody wants it any more
 * @throws Refused when too many are being packed
 */
export async function packedArchive(
  db: Db,
  workshopId: string,
  wanted: AbortSignal,
  place: Place = HERE,
): Promise<{ readonly bytes: number, readonly contents: ReadStream } | undefined> {
  if (packing.size >= MOST_WAITING) throw new Refused('busy')
  const folder = await mkdtemp(join(tmpdir(), FOLDER)), path = join(folder, 'archive.zip')
  const forget = () => void rm(folder, { recursive: true, force: true })
  try {
    await packing.add(() =>
      pipeline(archiveOf(db, workshopId, place), createWriteStream(path, { mode: 0o600 }), { signal: wanted }))
    const { size } = await stat(path)
    return { bytes: size, contents: createReadStream(path).once('close', forget) }
  }
  catch (error) {
    forget()
    if (wanted.aborted) return undefined
    throw error
  }
}
