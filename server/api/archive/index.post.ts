import { randomUUID } from 'node:crypto'
import { createWriteStream } from 'node:fs'
import { mkdtemp, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { Transform } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { ARCHIVE_BYTES } from '~contract/archive'
import { FOLDER } from '../../archive/packed'
import { ArchiveRefused } from '../../archive/read'
import { setToWork } from '../../imports/running'
import { beginImport } from '../../store/imports'
import { serve } from '../../route'

/** Brings a whole workshop in: the file goes to the disk first, and is then read by a thread of its own. */
export default serve('POST archive', async ({ event, db, scope, person, query }) => {
  const folder = await mkdtemp(join(tmpdir(), FOLDER)), path = join(folder, 'archive.zip'), id = randomUUID()
  try {
    await pipeline(event.node.req, limited(), createWriteStream(path, { mode: 0o600 }))
    await beginImport(scope, { id, kind: 'archive', name: query.file, by: person.id })
  }
  catch (error) {
    await rm(folder, { recursive: true, force: true })
    throw error
  }
  setToWork(db, { workshop: person.workshopId, place: person, job: id, work: { what: 'archive', path } }, folder)
  return { id }
})

function limited(): Transform {
  let bytes = 0
  return new Transform({
    transform(chunk: Buffer, _, done) {
      bytes += chunk.length
      done(bytes > ARCHIVE_BYTES ? new ArchiveRefused({ code: 'too-large' }) : undefined, chunk)
    },
  })
}
