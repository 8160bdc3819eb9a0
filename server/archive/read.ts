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
import { hashOfFiles } from './write'
import { Refused } from '../refused'

/** Why an archive was not taken in; nothing of it was written. */
export class ArchiveRefused extends Refused {
  constructor(sentence: string) {
    super('archive', undefined, sentence)
  }
}

/** Only these names can be in one: whatever else is in a file, it is not a workshop's. */
const NAMES
  = /^(?:nine-ripples\.json|workshop\.json|logbook\.csv|(?:people|library|plans|pours|views|photos|meshes)\.jsonl|photos\/[0-9a-f-]{36}\.jpg|meshes\/[0-9a-f-]{36}\.stl\.gz)$/
const MOST_ENTRIES = 100_000
/** Unpacked, all together; and how often a large file may be smaller packed: more is no text, but a trap. */
const MOST_BYTES = 20e9, LARGE = 50e6, MOST_SQUEEZED = 400
const MOST_LINE = 64e6, MOST_WHOLE = 300e6

const BROKEN
  = 'This file is not a whole archive of a workshop. If it was downloaded or copied, do that again; nothing was taken in.'

export interface Archive {
  readonly manifest: ArchiveManifest
  /** How much of it was read so far, 0 to 1. */
  share(): number
  has(name: string): boolean
  names(folder: 'photos' | 'meshes'): readonly string[]
  lines<L extends ArchiveList>(list: L): AsyncGenerator<ArchiveLine<L>>
  whole(name: string): Promise<Buffer>
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

  private open(name: string): Promise<Readable> {
    return new Promise((resolve, reject) =>
      this.zip.openReadStream(this.entries.get(name)!, (error, stream) => error ? reject(error) : resolve(stream)),
    )
  }

  /** A file in pieces, checked against its hash at the end. */
  async* pieces(name: string, sha256: string | undefined): AsyncGenerator<Buffer> {
    if (!this.entries.has(name)) throw new ArchiveRefused(BROKEN)
    const hash = createHash('sha256')
    try {
      for await (const piece of await this.open(name)) {
        hash.update(piece as Buffer)
        this.taken += (piece as Buffer).length
        yield piece as Buffer
      }
    }
    catch (error) {
      throw error instanceof ArchiveRefused ? error : new ArchiveRefused(BROKEN)
    }
    if (sha256 !== undefined && hash.digest('hex') !== sha256)
      throw new ArchiveRefused(
        `“${name}” in this archive is not as it was written. Take an untouched copy; nothing was taken in.`,
      )
  }

  async whole(name: string, sha256?: string): Promise<Buffer> {
    if ((this.entries.get(name)?.uncompressedSize ?? 0) > MOST_WHOLE)
      throw new ArchiveRefused(
        `“${name}” in this archive is larger than anything of its kind can be; nothing was taken in.`,
      )
    const parts: Buffer[] = []
    for await (const p of this.pieces(name, sha256)) parts.push(p)
    return Buffer.concat(parts)
  }
}

/** What the archive says of itself, which must be all of it and nothing else. */
async function manifestIn(files: Files): Promise<ArchiveManifest> {
  const manifest = manifestOf(await files.whole('nine-ripples.json')), named = Object.keys(manifest.files)
  const all = named.length + 1 === files.entries.size && named.every(n => files.entries.has(n))
  if (!all || hashOfFiles(manifest.files) !== manifest.hash) throw new ArchiveRefused(BROKEN)
  return manifest
}

/** Opens an archive and looks at everything that can be told without unpacking it. @throws ArchiveRefused */
export async function openArchive(path: string): Promise<Archive> {
  const zip = await openZip(path).catch(() => {
    throw new ArchiveRefused(BROKEN)
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
      lines,
      whole: name => files.whole(name, manifest.files[name]),
      close: () => zip.close(),
    }
  }
  catch (error) {
    zip.close()
    throw error
  }
}

function entriesOf(zip: yauzl.ZipFile): Promise<Map<string, yauzl.Entry>> {
  return new Promise((resolve, reject) => {
    const entries = new Map<string, yauzl.Entry>()
    let bytes = 0
    const refuse = (sentence: string) => reject(new ArchiveRefused(sentence))
    zip.on('error', () => refuse(BROKEN))
    zip.on('end', () => resolve(entries))
    zip.on('entry', (entry: yauzl.Entry) => {
      bytes += entry.uncompressedSize
      if (!NAMES.test(entry.fileName) || entries.has(entry.fileName) || entry.isEncrypted())
        return refuse(
          `There is something in this file that no archive of a workshop has (“${
            entry.fileName.slice(0, 60)
          }”); nothing was taken in.`,
        )
      if (
        entries.size >= MOST_ENTRIES || bytes > MOST_BYTES
        || (entry.uncompressedSize > LARGE && entry.uncompressedSize > MOST_SQUEEZED * entry.compressedSize)
      ) return refuse('This file would unpack to far more than a workshop holds; nothing was taken in.')
      entries.set(entry.fileName, entry)
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
    throw new ArchiveRefused(BROKEN)
  }
  const { format, version } = read as { format?: unknown, version?: unknown }
  if (format === ARCHIVE_FORMAT && typeof version === 'number' && version > ARCHIVE_VERSION)
    throw new ArchiveRefused(
      `This archive was written by a newer Nine Ripples (format ${version}; this one reads up to ${ARCHIVE_VERSION}). Bring this one up to date first.`,
    )
  const { data } = archiveManifestSchema.safeParse(read)
  if (!data) throw new ArchiveRefused(BROKEN)
  return data
}

async function* linesOf(pieces: AsyncIterable<Buffer>, name: string): AsyncGenerator<string> {
  let open: Buffer[] = [], length = 0
  for await (const piece of pieces) {
    let from = 0
    for (let end = piece.indexOf(10); end >= 0; end = piece.indexOf(10, from)) {
      yield Buffer.concat([...open, piece.subarray(from, end)]).toString('utf8')
      open = []
      length = 0
      from = end + 1
    }
    open.push(piece.subarray(from))
    length += piece.length - from
    if (length > MOST_LINE)
      throw new ArchiveRefused(`A line of “${name}” in this archive is longer than any can be; nothing was taken in.`)
  }
  if (length > 0) throw new ArchiveRefused(BROKEN)
}

function parseLine<L extends ArchiveList>(list: L, number: number, line: string): ArchiveLine<L> {
  let value: unknown
  try {
    value = JSON.parse(line)
  }
  catch {
    throw new ArchiveRefused(`Line ${number} of “${list}” in this archive cannot be read; nothing was taken in.`)
  }
  const parsed = archiveLines[list].safeParse(value)
  if (!parsed.success)
    throw new ArchiveRefused(
      `Line ${number} of “${list}” in this archive says something that cannot be (${
        parsed.error.issues[0]?.path.join('.') ?? ''
      }); nothing was taken in.`,
    )
  return parsed.data as ArchiveLine<L>
}
