import { createWriteStream } from 'node:fs'
import { mkdtemp, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { Transform } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { ARCHIVE_BYTES } from '~shared/archive'
import { ArchiveRefused } from '../../archive/read'
import { restoreArchive } from '../../archive/restore'
import { refuse, route } from '../../route'

/** Takes a whole workshop in: the file goes to the disk first, and into the records all at once or not at all. */
export default route('owner', {}, async ({ event, db, person }) => {
  const { req, res } = event.node, folder = await mkdtemp(join(tmpdir(), 'ripples-archive-')), path = join(folder, 'archive.zip')
  let bytes = 0
  try {
    const counted = new Transform({
      transform(chunk: Buffer, _, done) {
        bytes += chunk.length
        done(bytes > ARCHIVE_BYTES ? new ArchiveRefused('This file is larger than an archive that can be sent here (2 GB).') : undefined, chunk)
      },
    })
    await pipeline(req, counted, createWriteStream(path, { mode: 0o600 }))
    return await restoreArchive(db, person.workshopId, path, () => !res.closed)
  }
  catch (error) {
    throw error instanceof ArchiveRefused ? refuse(422, error.message) : error
  }
  finally {
    await rm(folder, { recursive: true, force: true })
  }
})
