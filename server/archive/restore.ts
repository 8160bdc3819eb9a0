import { createHash } from 'node:crypto'
import type { ArchiveLine } from '~contract/archive'
import { PLAN_SCHEMA_VERSION } from '~contract/plan'
import { ITEMS, upcastQuery } from '~contract/versions'
import { LOT, type Lots } from '../imports/lots'
import { writePourLot } from '../imports/pour-lot'
import { cleanJpeg } from '../photos/jpeg'
import type { Thing } from '../store/imports'
import { columnsOf } from '../store/photos'
import type { WholePour } from '../store/restoring'
import type { Scope } from '../store/scope'
import { checkArchive, wholePour, workshopIn } from './check'
import { ArchiveRefused, openArchive, type Archive } from './read'

/** Photos of one transaction: at most 45 MB. */
const PHOTOS_AT_ONCE = 50

/**
 * Takes an archive into a workshop that holds nothing yet. All of it is looked through first, so that whatever is wrong
 * with it, nothing of it is written; then it is written in lots.
 * @param path of the file
 * @throws ArchiveRefused, GivenUp
 */
export async function restoreArchive(lots: Lots, path: string): Promise<void> {
  const checked = await openArchive(path)
  try {
    await refuseIfNotEmpty(lots.scope)
    await checkArchive(checked, () => lots.told('checking', checked.share()))
  }
  finally {
    checked.close()
  }
  const archive = await openArchive(path)
  try {
    await restoreChecked(lots, archive)
  }
  finally {
    archive.close()
  }
}

async function refuseIfNotEmpty(scope: Scope): Promise<void> {
  for (const table of ['library_item', 'plan', 'pour'] as const)
    if (await scope.select(table).select('id').limit(1).executeTakeFirst())
      throw new ArchiveRefused({ code: 'not-empty' })
}

async function restoreChecked(lots: Lots, archive: Archive): Promise<void> {
  const counts = { moulds: 0, bags: 0, plans: 0 }
  await lots.write(0, async (inner) => {
    await inner.bumpEvents(0)
    await refuseIfNotEmpty(inner)
    const people = await restorePeople(inner, archive), items = await restoreLibrary(inner, archive, counts)
    const plans = await restorePlans(inner, archive), views = await restoreViews(inner, archive)
    counts.plans = plans.length
    return [...people, ...items, ...plans, ...views]
  })
  for (const [what, n] of Object.entries(counts)) lots.counts[what as keyof typeof counts] += n
  await restoreAllPours(lots, archive)
  await restorePhotos(lots, archive)
  await restoreModels(lots, archive)
  const workshop = await workshopIn(archive)
  await lots.db.updateTable('workshop').set({ name: workshop.name, units: JSON.stringify(workshop.units) })
    .where('id', '=', lots.scope.workshopId).execute()
}

/** People without accounts: they are only names of what they wrote. */
async function restorePeople(inner: Scope, archive: Archive): Promise<Thing[]> {
  const things: Thing[] = []
  for await (const { id, name } of archive.lines('people.jsonl')) {
    await inner.insert('person', [{
      id, account_id: null, name, role: 'viewer', archived_at: new Date(0),
    }]).execute()
    things.push({ kind: 'person', id, version: 0 })
  }
  return things
}

async function restoreLibrary(
  inner: Scope,
  archive: Archive,
  counts: { moulds: number, bags: number },
): Promise<Thing[]> {
  const things: Thing[] = []
  for await (const { id, kind, body, revision, archived } of archive.lines('library.jsonl')) {
    // As it was written: what this version does not know of it is not lost.
    await inner.insert('library_item', [{
      id,
      kind,
      schema_version: ITEMS[kind].version,
      body: JSON.stringify(body),
      revision,
      archived_at: archived ? new Date(archived) : null,
    }]).execute()
    if (kind === 'mould') counts.moulds++
    if (kind === 'bag') counts.bags++
    things.push({ kind: 'item', id, version: revision })
  }
  return things
}

async function restorePlans(inner: Scope, archive: Archive): Promise<Thing[]> {
  const things: Thing[] = []
  for await (const p of archive.lines('plans.jsonl')) {
    await inner.insert('plan', [{
      id: p.id,
      schema_version: PLAN_SCHEMA_VERSION,
      body: JSON.stringify(p.plan),
      revision: p.revision,
      updated_at: new Date(p.updatedAt),
      archived_at: p.archived ? new Date(p.archived) : null,
    }]).execute()
    things.push({ kind: 'plan', id: p.id, version: p.revision })
  }
  return things
}

async function restoreViews(inner: Scope, archive: Archive): Promise<Thing[]> {
  const things: Thing[] = []
  for await (const { id, name, query } of archive.lines('views.jsonl')) {
    const read = upcastQuery(query)
    if (!read.ok) continue
    await inner.insert('logbook_view', [{ id, name, query: JSON.stringify(read.value) }]).execute()
    things.push({ kind: 'view', id, version: 0 })
  }
  return things
}

async function restoreAllPours(lots: Lots, archive: Archive): Promise<void> {
  let together: WholePour[] = []
  for await (const line of archive.lines('pours.jsonl')) {
    together.push(wholePour(line))
    if (together.length < LOT) continue
    await writePourLot(lots, archive.share(), together)
    together = []
  }
  await writePourLot(lots, archive.share(), together)
}

async function restorePhotos(lots: Lots, archive: Archive): Promise<void> {
  let together: ArchiveLine<'photos.jsonl'>[] = []
  const write = async () => {
    const photos = together
    together = []
    if (photos.length === 0) return
    await lots.write(archive.share(), async (inner) => {
      for (const photo of photos) await restorePhoto(inner, archive, photo)
      return photos.map(({ id }) => ({ kind: 'photo', id, version: 0 }))
    }, { photos: photos.length })
  }
  for await (const line of archive.lines('photos.jsonl')) {
    together.push(line)
    if (together.length >= PHOTOS_AT_ONCE) await write()
  }
  await write()
}

/** As it was kept; what a camera wrote beside the picture is left out whoever made the archive. */
async function restorePhoto(inner: Scope, archive: Archive, line: ArchiveLine<'photos.jsonl'>): Promise<void> {
  const { id, of, caption, createdAt } = line, photo = cleanJpeg(await archive.whole(`photos/${id}.jpg`))
  if (!photo) throw new ArchiveRefused({ code: 'photo' })
  await inner.insert('photo', [{
    id,
    ...columnsOf(of),
    caption,
    width: photo.width,
    height: photo.height,
    sha256: createHash('sha256').update(photo.bytes).digest('hex'),
    data: Buffer.from(photo.bytes),
    created_at: new Date(createdAt),
  }]).execute()
}

/** A file in parts of these lengths, bytes; no more of it than a part is held at once. */
async function* partsOf(pieces: AsyncIterable<Buffer>, lengths: readonly number[]): AsyncGenerator<Buffer> {
  let held: Buffer[] = [], bytes = 0, part = 0
  for await (const piece of pieces) {
    held.push(piece)
    bytes += piece.length
    while (part < lengths.length && bytes >= lengths[part]!) {
      const all = Buffer.concat(held), length = lengths[part++]!
      yield all.subarray(0, length)
      held = [all.subarray(length)]
      bytes -= length
    }
  }
}

async function restoreModels(lots: Lots, archive: Archive): Promise<void> {
  for await (const { id, mould, name, unit, triangles, parts, createdAt } of archive.lines('meshes.jsonl')) {
    await lots.write(archive.share(), async (inner) => {
      await inner.insert('mesh', [{
        id, mould_id: mould, name, unit, triangles, parts: parts.length, sha256: null, created_at: new Date(createdAt),
      }]).execute()
      const hash = createHash('sha256')
      let part = 0
      for await (const data of partsOf(archive.pieces(`meshes/${id}.stl.gz`), parts)) {
        hash.update(data)
        await inner.insert('mesh_part', [{ mesh_id: id, part: part++, data }]).execute()
      }
      await inner.update('mesh').set({ sha256: hash.digest('hex') }).where('id', '=', id).execute()
      return [{ kind: 'mesh', id, version: 0 }]
    }, { models: 1 })
  }
}
