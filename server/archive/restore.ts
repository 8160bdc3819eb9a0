import { createHash } from 'node:crypto'
import { LIBRARY } from '~contract/library'
import { archiveWorkshopSchema, type ArchiveLine, type Restored } from '~contract/archive'
import { MOST_PHOTOS, PHOTO_BYTES } from '~contract/photo'
import { PLAN_SCHEMA_VERSION } from '~contract/plan'
import { sentEventSchema } from '~contract/pour'
import { announceAll } from '../store/announce'
import type { Db } from '../store/open'
import { columnsOf, there } from '../store/photos'
import { restorePours, type WholePour } from '../store/restoring'
import { within, type Scope } from '../store/scope'
import { cleanJpeg } from '../photos/jpeg'
import { ArchiveRefused, openArchive, type Archive } from './read'
import { Refused } from '../refused'
import { ITEMS, upcastQuery } from '~contract/versions'

const POURS_AT_ONCE = 50
const STRANGER = 'Something in this archive belongs to what is not in it; nothing was taken in.'

/**
 * Takes an archive into a workshop that holds nothing yet: all of it or, whatever is wrong with it, nothing.
 * @param path of the file @param told now and then how much of it was read, 0 to 1: an answer of false gives it up
 * @throws ArchiveRefused with a sentence
 */
export async function restoreArchive(
  db: Db,
  workshopId: string,
  path: string,
  told: (share: number) => boolean,
): Promise<Restored> {
  const archive = await openArchive(path)
  try {
    return await within(db, workshopId).transaction(async (inner, trx) => {
      await inner.bumpEvents(0)
      for (const table of ['library_item', 'plan', 'pour'] as const) {
        if (await inner.select(table).select('id').limit(1).executeTakeFirst())
          throw new ArchiveRefused(
            'An archive is only taken into an empty workshop, so that nothing can be mixed up. Start a workshop of its own for it.',
          )
      }
      const restored = await restoreInto(inner, archive, told)
      const workshop = archiveWorkshopSchema.safeParse(
        JSON.parse((await archive.whole('workshop.json')).toString('utf8')),
      )
      if (!workshop.success)
        throw new ArchiveRefused('This archive does not say whose workshop it is; nothing was taken in.')
      await trx.updateTable('workshop').set({ name: workshop.data.name, units: JSON.stringify(workshop.data.units) })
        .where('id', '=', workshopId).execute()
      await announceAll(trx, workshopId, [{ what: 'library' }, { what: 'plans' }, { what: 'people' }])
      return restored
    })
  }
  catch (error) {
    if (error instanceof Refused && error.code === 'entries') throw new ArchiveRefused(`${error.message} Nothing was taken in.`)
    const { code } = error as { code?: string }
    if (code === '23505')
      throw new ArchiveRefused(
        'Something of this archive is on this server already, perhaps in another workshop. Nothing was taken in.',
      )
    if (code === '23503') throw new ArchiveRefused(STRANGER)
    throw error
  }
  finally {
    archive.close()
  }
}

type Count = { -readonly [K in keyof Restored]: number }

/** People without accounts: they are only names of what they wrote. */
async function restorePeople(inner: Scope, archive: Archive): Promise<void> {
  for await (const { id, name } of archive.lines('people.jsonl')) {
    await inner.insert('person', [{
      id, account_id: null, name, role: 'viewer', archived_at: new Date(0),
    }]).execute()
  }
}

async function restoreLibrary(inner: Scope, archive: Archive, count: Count): Promise<void> {
  for await (const { id, kind, body, revision, archived } of archive.lines('library.jsonl')) {
    const read = LIBRARY[kind].safeParse(body)
    if (!read.success) {
      const why = read.error.issues[0]?.message ?? ''
      throw new ArchiveRefused(`A ${kind} in this archive says something that cannot be (${why}); nothing was taken in.`)
    }
    // As it was written: what this version does not know of it is not lost.
    await inner.insert('library_item', [{
      id,
      kind,
      schema_version: ITEMS[kind].version,
      body: JSON.stringify(body),
      revision,
      archived_at: archived ? new Date(archived) : null,
    }]).execute()
    if (kind === 'mould') count.moulds++
  }
}

async function restorePlans(inner: Scope, archive: Archive, count: Count): Promise<void> {
  for await (const p of archive.lines('plans.jsonl')) {
    await inner.insert('plan', [{
      id: p.id,
      schema_version: PLAN_SCHEMA_VERSION,
      body: JSON.stringify(p.plan),
      revision: p.revision,
      updated_at: new Date(p.updatedAt),
      archived_at: p.archived ? new Date(p.archived) : null,
    }]).execute()
    count.plans++
  }
}

/** A pour that says all it has to, and yet cannot be worked out: no version wrote it like this. */
function notWorkedOut(error: unknown): never {
  throw error instanceof TypeError || error instanceof RangeError
    ? new ArchiveRefused('A pour in this archive cannot be worked out from what is written of it; nothing was taken in.')
    : error
}

async function restoreAllPours(
  inner: Scope,
  archive: Archive,
  count: Count,
  going: () => void,
): Promise<void> {
  let together: WholePour[] = []
  const write = async () => {
    going()
    if (together.length > 0) await restorePours(inner, together).catch(notWorkedOut)
    together = []
  }
  for await (const line of archive.lines('pours.jsonl')) {
    together.push(wholePour(line))
    count.pours++
    count.entries += line.events.length
    if (together.length >= POURS_AT_ONCE) await write()
  }
  await write()
}

async function restoreViews(inner: Scope, archive: Archive): Promise<void> {
  for await (const { id, name, query } of archive.lines('views.jsonl')) {
    const read = upcastQuery(query)
    if (read.ok) await inner.insert('logbook_view', [{ id, name, query: JSON.stringify(read.value) }]).execute()
  }
}

async function restoreInto(inner: Scope, archive: Archive, told: (share: number) => boolean): Promise<Restored> {
  const going = () => {
    if (!told(archive.share())) throw new ArchiveRefused('It was given up; nothing was taken in.')
  }
  const count = { pours: 0, entries: 0, moulds: 0, plans: 0, photos: 0, models: 0 }
  await restorePeople(inner, archive)
  await restoreLibrary(inner, archive, count)
  await restorePlans(inner, archive, count)
  await restoreAllPours(inner, archive, count, going)
  await restoreViews(inner, archive)
  await restorePhotos(inner, archive, count, going)
  await restoreMeshes(inner, archive, count, going)
  // The table is not read, but a file that was tampered with is not half trusted.
  if (archive.has('logbook.csv')) await archive.whole('logbook.csv')
  return count
}

function wholePour({ id, planId, run, startedBy, createdAt, events }: ArchiveLine<'pours.jsonl'>): WholePour {
  const entries = events.map(({ actor, skewMs, receivedAt, ...event }) => {
    const parsed = sentEventSchema.safeParse(event)
    if (!parsed.success)
      throw new ArchiveRefused(
        `An entry of the pour “${run.plan.name}” in this archive says something that cannot be (${
          parsed.error.issues[0]?.path.join('.') ?? ''
        }); nothing was taken in.`,
      )
    return { event: parsed.data, actor, skewMs, receivedAt: new Date(receivedAt) }
  })
  return { id, planId, run, startedBy, createdAt: new Date(createdAt), entries }
}

async function restorePhotos(
  inner: Scope,
  archive: Archive,
  count: { photos: number },
  going: () => void,
): Promise<void> {
  const counts = new Map<string, number>()
  for await (const { id, of: subject, caption, createdAt } of archive.lines('photos.jsonl')) {
    going()
    if (!await there(inner, subject)) throw new ArchiveRefused(STRANGER)
    const of = JSON.stringify(subject)
    counts.set(of, (counts.get(of) ?? 0) + 1)
    const photo = cleanJpeg(await archive.whole(`photos/${id}.jpg`))
    if (!photo || photo.bytes.length > PHOTO_BYTES || counts.get(of)! > MOST_PHOTOS)
      throw new ArchiveRefused(
        'A photo in this archive is none, or larger, or one more than is kept; nothing was taken in.',
      )
    await inner.insert('photo', [{
      id,
      ...columnsOf(subject),
      caption,
      width: photo.width,
      height: photo.height,
      sha256: createHash('sha256').update(photo.bytes).digest('hex'),
      data: Buffer.from(photo.bytes),
      created_at: new Date(createdAt),
    }]).execute()
    count.photos++
  }
  if (archive.names('photos').length !== count.photos)
    throw new ArchiveRefused('There are photos in this archive that belong to nothing; nothing was taken in.')
}

async function restoreMeshes(
  inner: Scope,
  archive: Archive,
  count: { models: number },
  going: () => void,
): Promise<void> {
  for await (const { id, mould, name, unit, triangles, parts, createdAt } of archive.lines('meshes.jsonl')) {
    going()
    if (!await there(inner, { mould })) throw new ArchiveRefused(STRANGER)
    const data = await archive.whole(`meshes/${id}.stl.gz`)
    if (data.length !== parts.reduce((a, b) => a + b, 0))
      throw new ArchiveRefused('A model in this archive is not whole; nothing was taken in.')
    await inner.insert('mesh', [{
      id,
      mould_id: mould,
      name,
      unit,
      triangles,
      parts: parts.length,
      sha256: createHash('sha256').update(data).digest('hex'),
      created_at: new Date(createdAt),
    }]).execute()
    let from = 0
    for (const [part, bytes] of parts.entries())
      await inner.insert('mesh_part', [{ mesh_id: id, part, data: data.subarray(from, from += bytes) }]).execute()
    count.models++
  }
  if (archive.names('meshes').length !== count.models)
    throw new ArchiveRefused('There are models in this archive that belong to nothing; nothing was taken in.')
}
