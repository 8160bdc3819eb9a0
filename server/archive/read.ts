import { createHash } from 'node:crypto'
import type { Readable } from 'node:stream'
import yauzl from 'yauzl'
import {
  ARCHIVE_FORMAT,
  ARCHIVE_VERSION,
  archiveLines,
  archiveManifestSchema,
  type ArchiveLine,
  type ArchiveList,
  type ArchiveManifest,
} from '~contract/archive'
import { Refused } from '../refused'
import { isTooDeep, LARGE, MANIFEST, MOST_BYTES, MOST_FILES, MOST_LINE, MOST_SQUEEZED, mostBytesOf } from './caps'
import { archiveWords, type ArchiveFault } from './words'
import { hashOfFiles } from './write'

/** Why an archive was not taken in; nothing of it was written. */
export class ArchiveRefused extends Refused {
  constructor(readonly fault: ArchiveFault) {
    super('archive', undefined, archiveWords(fault))
  }
}
const notWhole = () => new ArchiveRefused({ code: 'not-whole' })

export interface Archive {
  readonly manifest: ArchiveManifest
  /** How much of it was read so far, 0 to 1. */
  share(): number
  has(name: string): boolean
  names(folder: 'photos' | 'meshes'): readonly string[]
  /** Bytes of a file, or of all in a folder, unpacked. */
  bytes(name: string): number
  lines<L extends ArchiveList>(list: L): AsyncGenerator<ArchiveLine<L>>
  whole(name: string): Promise<Buffer>
  pieces(name: string): AsyncGenerator<Buffer>
  close(): void
}

function openZip(path: string): Promise<yauzl.ZipFile> {
  return new Promise((resolve, reject) =>
    yauzl.open(
      path,
      { lazyEntries: true, autoClose: false, validateEntrySizes: true, strictFileNames: true },
      (error, zip) => error ? reject(error) : resolve(zip),
    ),
  )
}

/** The files of an opened archive; what was read of it is counted. */
class Files {
  private taken = 0
  private readonly bytes: number
  constructor(private readonly zip: yauzl.ZipFile, readonly entries: ReadonlyMap<string, yauzl.Entry>) {
    this.bytes = [...entries.values()].reduce((sum, e) => sum + e.uncompressedSize, 0)
  }

  share(): number {
    return Math.min(1, this.taken / Math.max(1, this.bytes))
  }

  bytesOf(name: string): number {
    const within = [...this.entries].filter(([n]) => n === name || n.startsWith(`${name}/`))
    return within.reduce((sum, [, e]) => sum + e.uncompressedSize, 0)
  }

  private open(name: string): Promise<Readable> {
    return new Promise((resolve, reject) =>
      this.zip.openReadStream(this.entries.get(name)!, (error, stream) => error ? reject(error) : resolve(stream)),
    )
  }

  /** A file in pieces, checked against its hash at the end. */
  async* pieces(name: string, sha256: string | undefined): AsyncGenerator<Buffer> {
    if (!this.entries.has(name)) throw notWhole()
    const hash = createHash('sha256')
    try {
      for await (const piece of await this.open(name)) {
        hash.update(piece as Buffer)
        this.taken += (piece as Buffer).length
        yield piece as Buffer
      }
    }
    catch (error) {
      throw error instanceof ArchiveRefused ? error : notWhole()
    }
    if (sha256 !== undefined && hash.digest('hex') !== sha256)
      throw new ArchiveRefused({ code: 'changed-file', name })
  }

  async whole(name: string, sha256?: string): Promise<Buffer> {
    const parts: Buffer[] = []
    for await (const p of this.pieces(name, sha256)) parts.push(p)
    return Buffer.concat(parts)
  }
}

/** What the archive says of itself, which must be all of it and nothing else. */
async function manifestIn(files: Files): Promise<ArchiveManifest> {
  const manifest = manifestOf(await files.whole(MANIFEST)), named = Object.keys(manifest.files)
  const all = named.length + 1 === files.entries.size && named.every(n => files.entries.has(n))
  if (!all || hashOfFiles(manifest.files) !== manifest.hash) throw notWhole()
  return manifest
}

/** Opens an archive and looks at everything that can be told without unpacking it. @throws ArchiveRefused */
export async function openArchive(path: string): Promise<Archive> {
  const zip = await openZip(path).catch(() => {
    throw notWhole()
  })
  try {
    const files = new Files(zip, await entriesOf(zip)), manifest = await manifestIn(files)
    async function* lines<L extends ArchiveList>(list: L): AsyncGenerator<ArchiveLine<L>> {
      let number = 0
      for await (const line of linesOf(files.pieces(list, manifest.files[list]), list))
        yield parseLine(list, ++number, line)
    }
    return {
      manifest,
      share: () => files.share(),
      has: name => files.entries.has(name),
      names: folder => [...files.entries.keys()].filter(n => n.startsWith(`${folder}/`)),
      bytes: name => files.bytesOf(name),
      lines,
      whole: name => files.whole(name, manifest.files[name]),
      pieces: name => files.pieces(name, manifest.files[name]),
      close: () => zip.close(),
    }
  }
  catch (error) {
    zip.close()
    throw error
  }
}

/** What is wrong with a file in an archive, by what is said of it. @param files in all @param bytes of all so far */
function faultOf(entry: yauzl.Entry, files: number, bytes: number): ArchiveFault | undefined {
  const { fileName: name, uncompressedSize: size, compressedSize: packed } = entry, most = mostBytesOf(name, files)
  if (most === undefined || entry.isEncrypted()) return { code: 'foreign-file', name }
  if (bytes > MOST_BYTES || (size > LARGE && size > MOST_SQUEEZED * packed)) return { code: 'unpacks-to-more' }
  return size > most ? { code: 'large-file', name } : undefined
}

function entriesOf(zip: yauzl.ZipFile): Promise<Map<string, yauzl.Entry>> {
  return new Promise((resolve, reject) => {
    const entries = new Map<string, yauzl.Entry>(), files = zip.entryCount
    let bytes = 0
    const refuse = (fault: ArchiveFault) => reject(new ArchiveRefused(fault))
    if (files > MOST_FILES) return refuse({ code: 'too-many-files' })
    zip.on('error', () => refuse({ code: 'not-whole' }))
    zip.on('end', () => resolve(entries))
    zip.on('entry', (entry: yauzl.Entry) => {
      const name = entry.fileName
      const fault = faultOf(entry, files, bytes += entry.uncompressedSize)
      if (fault) return refuse(fault)
      if (entries.has(name)) return refuse({ code: 'foreign-file', name })
      entries.set(name, entry)
      zip.readEntry()
    })
    zip.readEntry()
  })
}

function manifestOf(bytes: Buffer): ArchiveManifest {
  let read: unknown
  try {
    read = JSON.parse(bytes.toString('utf8'))
  }
  catch {
    throw notWhole()
  }
  const { format, version } = (read ?? {}) as { format?: unknown, version?: unknown }
  if (format === ARCHIVE_FORMAT && typeof version === 'number' && version > ARCHIVE_VERSION)
    throw new ArchiveRefused({ code: 'newer', version })
  const { data } = archiveManifestSchema.safeParse(read)
  if (!data) throw notWhole()
  return data
}

/** The lines of a list, in bytes: each is looked at before it is read. */
async function* linesOf(pieces: AsyncIterable<Buffer>, name: ArchiveList): AsyncGenerator<Buffer> {
  let open: Buffer[] = [], length = 0
  for await (const piece of pieces) {
    let from = 0
    for (let end = piece.indexOf(10); end >= 0; end = piece.indexOf(10, from)) {
      yield Buffer.concat([...open, piece.subarray(from, end)])
      open = []
      length = 0
      from = end + 1
    }
    open.push(piece.subarray(from))
    length += piece.length - from
    if (length > MOST_LINE[name]) throw new ArchiveRefused({ code: 'long-line', name })
  }
  if (length > 0) throw notWhole()
}

/** NUL and halves of letters, which no database holds: none was written. Looked for where a line speaks of such. */
const MAYBE_UNHOLDABLE = /\\u(?:0000|d[89a-f])/i
const UNHOLDABLE = /\0|[\uD800-\uDBFF](?![\uDC00-\uDFFF])|(?<![\uD800-\uDBFF])[\uDC00-\uDFFF]/
function canBeHeld(value: unknown): boolean {
  if (typeof value === 'string') return !UNHOLDABLE.test(value)
  if (value === null || typeof value !== 'object') return true
  return Object.entries(value).every(([k, v]) => canBeHeld(k) && canBeHeld(v))
}

function parseLine<L extends ArchiveList>(name: L, line: number, bytes: Buffer): ArchiveLine<L> {
  if (bytes.length > MOST_LINE[name]) throw new ArchiveRefused({ code: 'long-line', name })
  if (isTooDeep(bytes)) throw new ArchiveRefused({ code: 'deep-line', name, line })
  let value: unknown
  try {
    const text = bytes.toString('utf8')
    value = JSON.parse(text)
    if (MAYBE_UNHOLDABLE.test(text) && !canBeHeld(value)) throw new SyntaxError('It cannot be held.')
  }
  catch {
    throw new ArchiveRefused({ code: 'unread-line', name, line })
  }
  const parsed = archiveLines[name].safeParse(value)
  if (!parsed.success)
    throw new ArchiveRefused({ code: 'line', name, line, path: parsed.error.issues[0]?.path.join('.') ?? '' })
  return parsed.data as ArchiveLine<L>
}
