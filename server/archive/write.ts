import { createHash } from 'node:crypto'
import { finished, PassThrough, Readable } from 'node:stream'
import { sql } from 'kysely'
import yazl from 'yazl'
import { canonicalJson } from '~core/formats/canonical'
import { CSV_MARK, csvRow } from '~core/formats/csv'
import { LOGBOOK_HEAD, logbookRows } from '~core/formats/logbook-table'
import {
  ARCHIVE_FORMAT,
  ARCHIVE_VERSION,
  type ArchiveLine,
  type ArchiveList,
  type ArchiveManifest,
} from '~contract/archive'
import { HERE, type Place } from '../store/homes'
import type { Db } from '../store/open'
import { logbookPages } from '../store/pours'
import { within, type Scope } from '../store/scope'

const PAGE = 40

type Lines<L extends ArchiveList> = AsyncGenerator<ArchiveLine<L>>

/** Rows in the order of their ids, some at a time. */
async function* paged<R extends { id: string }>(read: (after: string) => Promise<R[]>): AsyncGenerator<R[]> {
  for (let after = '00000000-0000-0000-0000-000000000000'; ;) {
    const rows = await read(after)
    if (rows.length > 0) yield rows
    if (rows.length < PAGE) return
    after = rows.at(-1)!.id
  }
}

/** Only those who wrote something: their names belong to what they wrote. Addresses and passwords stay here. */
async function* people(scope: Scope): Lines<'people.jsonl'> {
  const began = sql<boolean>`exists (select from pour
    where pour.workshop_id = person.workshop_id and started_by = person.id::text)`
  const told = sql<boolean>`exists (select from pour_event e
    where e.workshop_id = person.workshop_id and actor = person.id::text)`
  const rows = await scope.select('person').select(['id', 'name']).orderBy('id').where(eb => eb.or([began, told])).execute()
  yield* rows
}
async function* library(scope: Scope): Lines<'library.jsonl'> {
  for await (
    const rows of paged(after =>
      scope.select('library_item').select(['id', 'kind', 'body', 'revision', 'archived_at']).where('id', '>', after)
        .orderBy('id').limit(PAGE).execute(),
    )
  ) {
    for (const { id, kind, body, revision, archived_at } of rows)
      yield { id, kind, body, revision, archived: archived_at?.toISOString() }
  }
}
async function* plans(scope: Scope): Lines<'plans.jsonl'> {
  for await (
    const rows of paged(after =>
      scope.select('plan').select(['id', 'body', 'revision', 'updated_at', 'archived_at']).where('id', '>', after)
        .orderBy('id').limit(PAGE).execute(),
    )
  ) {
    for (const { id, body, revision, updated_at, archived_at } of rows)
      yield {
        id,
        plan: body as ArchiveLine<'plans.jsonl'>['plan'],
        revision,
        updatedAt: updated_at.toISOString(),
        archived: archived_at?.toISOString(),
      }
  }
}
async function* pours(scope: Scope): Lines<'pours.jsonl'> {
  for await (
    const rows of paged(after =>
      scope.select('pour').select(['id', 'plan_id', 'run', 'started_by', 'created_at']).where('id', '>', after).orderBy(
        'id',
      ).limit(PAGE).execute(),
    )
  ) {
    const events = await scope.select('pour_event').selectAll('pour_event').where('pour_id', 'in', rows.map(r => r.id))
      .orderBy('seq').execute()
    for (const { id, plan_id, run, started_by, created_at } of rows) {
      yield {
        id,
        planId: plan_id ?? undefined,
        startedBy: started_by,
        createdAt: created_at.toISOString(),
        run,
        events: events.filter(e => e.pour_id === id).map(e => ({
          id: e.id,
          batch: e.batch ?? undefined,
          kind: e.kind,
          version: e.version,
          data: e.data,
          happenedAt: e.happened_at,
          recordedAt: e.recorded_at,
          receivedAt: e.received_at.toISOString(),
          skewMs: e.skew_ms,
          device: e.device,
          deviceSeq: e.device_seq,
          actor: e.actor,
          ...e.mends !== null && { mends: e.mends },
          ...e.doubt_ms !== null && { doubt: e.doubt_ms },
        })),
      }
    }
  }
}
async function* views(scope: Scope): Lines<'views.jsonl'> {
  yield* await scope.select('logbook_view').select(['id', 'name', 'query']).orderBy('id').execute()
}
async function* photos(scope: Scope): Lines<'photos.jsonl'> {
  for (
    const { id, mould_id, pour_id, cast_id, caption, created_at } of await scope.select('photo').select([
      'id',
      'mould_id',
      'pour_id',
      'cast_id',
      'caption',
      'created_at',
    ]).orderBy('id').execute()
  )
    yield {
      id,
      of: mould_id === null ? { pour: pour_id!, cast: cast_id! } : { mould: mould_id },
      caption,
      createdAt: created_at.toISOString(),
    }
}
async function* meshes(scope: Scope): Lines<'meshes.jsonl'> {
  for (
    const m of await scope.select('mesh').select(['id', 'mould_id', 'name', 'unit', 'triangles', 'created_at']).where(
      'sha256',
      'is not',
      null,
    ).orderBy('id').execute()
  ) {
    const parts = await scope.select('mesh_part').select(sql<number>`length(data)::int`.as('bytes')).where(
      'mesh_id',
      '=',
      m.id,
    ).orderBy('part').execute()
    yield {
      id: m.id,
      mould: m.mould_id,
      name: m.name,
      unit: m.unit as 'mm',
      triangles: m.triangles,
      parts: parts.map(p => p.bytes),
      createdAt: m.created_at.toISOString(),
    }
  }
}
async function* meshData(scope: Scope, id: string): AsyncGenerator<Buffer> {
  const { parts } = await scope.select('mesh').select('parts').where('id', '=', id).executeTakeFirstOrThrow()
  for (let part = 0; part < parts; part++)
    yield (await scope.select('mesh_part').select('data').where('mesh_id', '=', id).where('part', '=', part)
      .executeTakeFirstOrThrow()).data
}
async function* table(scope: Scope): AsyncGenerator<string> {
  yield CSV_MARK + csvRow(LOGBOOK_HEAD)
  for await (const page of logbookPages(scope))
    yield page.flatMap(({ summary, casts }) => logbookRows(summary, casts).map(csvRow)).join('')
}
async function* asText(lines: AsyncGenerator<unknown>): AsyncGenerator<string> {
  for await (const line of lines) yield `${canonicalJson(line)}\n`
}

/**
 * The one hash of a workshop's contents: of its files in the order of their names. The table is for people; it follows
 * from the rest.
 */
export function hashOfFiles(files: Readonly<Record<string, string>>): string {
  const hash = createHash('sha256')
  for (const [name, sha256] of Object.entries(files).sort(([a], [b]) => a < b ? -1 : 1))
    if (name !== 'logbook.csv') hash.update(`${name} ${sha256}\n`)
  return hash.digest('hex')
}

/** What is packed into an archive, piece by piece as it is fetched; whatever goes wrong ends it. */
class Packing {
  private readonly zip = new yazl.ZipFile()
  private readonly files: Record<string, string> = {}
  /** What is being read for the archive now. */
  private reading: Readable | undefined
  readonly finished: Promise<void>

  constructor(out: PassThrough) {
    this.finished = new Promise<void>((resolve, reject) => {
      // Also when it was broken off before it began: then nothing is heard from it but this.
      finished(out, { readable: false }, (error) => {
        if (error) this.zip.emit('error', error)
        else resolve()
      })
      // Whatever goes wrong, a broken download too: no further file is begun, and the snapshot is let go once nothing
      // is read from it any more.
      this.zip.on('error', (error: Error) => {
        if (!this.reading || this.reading.closed) reject(error)
        else this.reading.once('close', () => reject(error)).destroy()
      })
      this.zip.outputStream.on('error', reject)
      this.zip.outputStream.pipe(out)
    })
  }

  add(name: string, contents: () => AsyncIterable<string | Uint8Array>, compress = true): void {
    this.zip.addReadStreamLazy(name, { compress }, (ready) => {
      this.reading = Readable.from(this.hashed(name, contents())).on('error', error => this.zip.emit('error', error))
      ready(null, this.reading)
    })
  }

  private async* hashed(name: string, contents: AsyncIterable<string | Uint8Array>): AsyncGenerator<Uint8Array> {
    const hash = createHash('sha256')
    for await (const part of contents) {
      hash.update(part)
      yield typeof part === 'string' ? Buffer.from(part) : part
    }
    this.files[name] = hash.digest('hex')
  }

  /** Last, when the hashes of all others are known. */
  end(): void {
    this.zip.addReadStreamLazy('nine-ripples.json', {}, (ready) => {
      const manifest: ArchiveManifest = {
        format: ARCHIVE_FORMAT,
        version: ARCHIVE_VERSION,
        made: new Date().toISOString(),
        files: this.files,
        hash: hashOfFiles(this.files),
      }
      ready(null, Readable.from([Buffer.from(JSON.stringify(manifest, undefined, 2))]))
    })
    this.zip.end()
  }
}

const LISTS: { readonly [L in ArchiveList]: (scope: Scope) => Lines<L> } = {
  'people.jsonl': people,
  'library.jsonl': library,
  'plans.jsonl': plans,
  'pours.jsonl': pours,
  'views.jsonl': views,
  'photos.jsonl': photos,
  'meshes.jsonl': meshes,
}
async function* whole(text: string) {
  yield text
}
async function* photoData(scope: Scope, id: string) {
  yield (await scope.select('photo').select('data').where('id', '=', id).executeTakeFirstOrThrow()).data
}

/**
 * A whole workshop as one archive, as it is at this moment, however long it takes to fetch: one snapshot, read in
 * pieces, never all of it at once.
 * Without what opens it: no addresses, passwords, sessions or links.
 */
export function archiveOf(db: Db, workshopId: string, place: Place = HERE): Readable {
  const out = new PassThrough()
  async function write(): Promise<void> {
    const workshop = await db.selectFrom('workshop').select(['name', 'units']).where('id', '=', workshopId)
      .executeTakeFirstOrThrow()
    await within(db, workshopId, place).transaction(scope => packAll(out, scope, workshop), 'repeatable read')
  }
  void write().catch(error => out.destroy(error as Error))
  return out
}

async function packAll(out: PassThrough, scope: Scope, workshop: object): Promise<void> {
  const pictures = await scope.select('photo').select('id').orderBy('id').execute(),
    models = await scope.select('mesh').select('id').where('sha256', 'is not', null).orderBy('id').execute()
  // Not before nothing more is waited for: whoever asked may be gone, and then it ends at once.
  const packing = new Packing(out)
  packing.add('workshop.json', () => whole(canonicalJson(workshop)))
  for (const [name, lines] of Object.entries(LISTS)) packing.add(name, () => asText(lines(scope)))
  packing.add('logbook.csv', () => table(scope))
  for (const { id } of pictures) packing.add(`photos/${id}.jpg`, () => photoData(scope, id), false)
  for (const { id } of models) packing.add(`meshes/${id}.stl.gz`, () => meshData(scope, id), false)
  packing.end()
  await packing.finished
}
