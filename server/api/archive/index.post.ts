import { createWriteStream } from 'node:fs'
import { mkdtemp, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { PassThrough, Transform, type Readable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { setResponseHeaders } from 'h3'
import { ARCHIVE_BYTES, type RestoreLine } from '~contract/archive'
import { FOLDER } from '../../archive/packed'
import { ArchiveRefused } from '../../archive/read'
import { restoreArchive } from '../../archive/restore'
import { refuse, serve } from '../../route'

/** Steps in which progress is told. */
const STEP = 0.01

/**
 * Takes a whole workshop in: the file goes to the disk first, and into the records all at once or not at all. What is
 * wrong with the file as a whole is an ordinary
 * refusal; once reading has begun, the answer is a stream of lines (RestoreLine).
 */
export default serve('POST archive', async ({ event, db, person }) => {
  const { req, res } = event.node,
    folder = await mkdtemp(join(tmpdir(), FOLDER)),
    path = join(folder, 'archive.zip')
  const forget = () => rm(folder, { recursive: true, force: true })
  try {
    await pipeline(req, limited(), createWriteStream(path, { mode: 0o600 }))
  }
  catch (error) {
    await forget()
    throw error
  }
  return new Promise<Readable>((answer, failed) => {
    const out = new PassThrough()
    let told = -STEP, begun = false
    const say = (line: RestoreLine) => {
      out.write(`${JSON.stringify(line)}\n`)
      if (begun) return
      begun = true
      setResponseHeaders(event, { 'content-type': 'application/x-ndjson', 'cache-control': 'no-store' })
      answer(out)
    }
    void restoreArchive(db, person.workshopId, path, (share) => {
      if (share - told >= STEP) say({ read: told = share })
      return !res.closed
    }).then(restored => say({ restored }), (error: unknown) => {
      const refused = error instanceof ArchiveRefused
      if (!begun) return failed(refused ? refuse(422, error.message) : error)
      if (!refused) console.error(error)
      say({
        refused: refused ? error.message : 'Something went wrong on the server; nothing was taken in. Try it again.',
      })
    }).finally(() => {
      out.end()
      return forget()
    })
  })
})

function limited(): Transform {
  let bytes = 0
  return new Transform({
    transform(chunk: Buffer, _, done) {
      bytes += chunk.length
      done(
        bytes > ARCHIVE_BYTES
          ? new ArchiveRefused('This file is larger than an archive that can be sent here (2 GB).')
          : undefined,
        chunk,
      )
    },
  })
}
