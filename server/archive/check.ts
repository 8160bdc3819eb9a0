import { LIBRARY } from '~contract/library'
import { archiveWorkshopSchema, type ArchiveLine, type ArchiveList } from '~contract/archive'
import { MOST_KEPT } from '~contract/limits'
import { MOST_PHOTOS, PHOTO_BYTES } from '~contract/photo'
import { sentEventSchema } from '~contract/pour'
import { checkAgainst } from '../store/appending'
import { foldedWhole, type WholePour } from '../store/restoring'
import { cleanJpeg } from '../photos/jpeg'
import { Refused } from '../refused'
import { keptWords } from '../words'
import { ArchiveRefused, type Archive } from './read'

/**
 * Looks through a whole archive before anything of it is written: every file is what it was when it was written, every
 * line says what can be, every pour can be worked out, nothing is there twice and nothing belongs to what is not in it.
 */

/** A pour of an archive with its entries, read and held against their schemas. @throws ArchiveRefused */
export function wholePour({ id, planId, run, startedBy, createdAt, events }: ArchiveLine<'pours.jsonl'>): WholePour {
  const entries = events.map(({ actor, skewMs, receivedAt, ...event }) => {
    const parsed = sentEventSchema.safeParse(event)
    if (!parsed.success) {
      const path = parsed.error.issues[0]?.path.join('.') ?? ''
      throw new ArchiveRefused({ code: 'entry', pour: run.plan.name, path })
    }
    return { event: parsed.data, actor, skewMs, receivedAt: new Date(receivedAt) }
  })
  return { id, planId, run, startedBy, createdAt: new Date(createdAt), entries }
}

/** Ids that may be there once. */
class Ids {
  private readonly seen = new Set<string>()
  constructor(private readonly name: ArchiveList) {}
  add(id: string): void {
    if (this.seen.has(id)) throw new ArchiveRefused({ code: 'twice', name: this.name, id })
    this.seen.add(id)
  }

  has(id: string): boolean {
    return this.seen.has(id)
  }
}

/** What of an archive others may belong to. */
interface Known {
  readonly moulds: Ids
  /** By `pour cast`. */
  readonly casts: Set<string>
}

async function checkLists(archive: Archive, moulds: Ids): Promise<void> {
  const people = new Ids('people.jsonl'), items = new Ids('library.jsonl')
  for await (const { id } of archive.lines('people.jsonl')) people.add(id)
  for await (const { id, kind, body } of archive.lines('library.jsonl')) {
    const read = LIBRARY[kind].safeParse(body)
    if (!read.success)
      throw new ArchiveRefused({ code: 'thing', kind, why: read.error.issues[0]?.message ?? '' })
    items.add(id)
    if (kind === 'mould') moulds.add(id)
  }
  for (const list of ['plans.jsonl', 'views.jsonl'] as const) {
    const ids = new Ids(list)
    for await (const { id } of archive.lines(list)) ids.add(id)
  }
}

async function checkPours(archive: Archive, casts: Set<string>, going: () => Promise<void>): Promise<void> {
  const ids = new Ids('pours.jsonl'), entries = new Ids('pours.jsonl')
  for await (const line of archive.lines('pours.jsonl')) {
    await going()
    const pour = wholePour(line)
    ids.add(pour.id)
    for (const { event } of pour.entries) entries.add(event.id)
    try {
      checkAgainst(pour.run, pour.entries.map(e => e.event))
      for (const cast of foldedWhole(pour).casts) casts.add(`${pour.id} ${cast.id}`)
    }
    catch (error) {
      if (error instanceof Refused) throw new ArchiveRefused({ code: 'entries', why: error.message })
      // It says all it has to, and yet no version wrote it like this.
      if (error instanceof TypeError || error instanceof RangeError)
        throw new ArchiveRefused({ code: 'not-worked-out' })
      throw error
    }
  }
}

async function checkPhotos(archive: Archive, known: Known, going: () => Promise<void>): Promise<void> {
  const ids = new Ids('photos.jsonl'), counts = new Map<string, number>()
  for await (const { id, of } of archive.lines('photos.jsonl')) {
    await going()
    ids.add(id)
    const subject = 'mould' in of ? of.mould : `${of.pour} ${of.cast}`
    if (!('mould' in of ? known.moulds.has(subject) : known.casts.has(subject)))
      throw new ArchiveRefused({ code: 'stranger' })
    counts.set(subject, (counts.get(subject) ?? 0) + 1)
    const photo = cleanJpeg(await archive.whole(`photos/${id}.jpg`))
    if (!photo || photo.bytes.length > PHOTO_BYTES || counts.get(subject)! > MOST_PHOTOS)
      throw new ArchiveRefused({ code: 'photo' })
  }
  if (archive.names('photos').some(n => !ids.has(n.slice('photos/'.length, -'.jpg'.length))))
    throw new ArchiveRefused({ code: 'photos-of-nothing' })
}

async function checkModels(archive: Archive, known: Known, going: () => Promise<void>): Promise<void> {
  const ids = new Ids('meshes.jsonl'), moulds = new Ids('meshes.jsonl')
  for await (const { id, mould, parts } of archive.lines('meshes.jsonl')) {
    await going()
    ids.add(id)
    // A mould has one model.
    moulds.add(mould)
    if (!known.moulds.has(mould)) throw new ArchiveRefused({ code: 'stranger' })
    let bytes = 0
    for await (const piece of archive.pieces(`meshes/${id}.stl.gz`)) bytes += piece.length
    if (bytes !== parts.reduce((a, b) => a + b, 0)) throw new ArchiveRefused({ code: 'model' })
  }
  if (archive.names('meshes').some(n => !ids.has(n.slice('meshes/'.length, -'.stl.gz'.length))))
    throw new ArchiveRefused({ code: 'models-of-nothing' })
}

/** @throws ArchiveRefused */
export async function workshopIn(archive: Archive): Promise<ReturnType<typeof archiveWorkshopSchema.parse>> {
  let said: unknown
  try {
    said = JSON.parse((await archive.whole('workshop.json')).toString('utf8'))
  }
  catch (error) {
    if (error instanceof ArchiveRefused) throw error
  }
  const workshop = archiveWorkshopSchema.safeParse(said)
  if (!workshop.success) throw new ArchiveRefused({ code: 'no-workshop' })
  return workshop.data
}

/** @param going is asked now and then, and throws when nobody wants it any more @throws ArchiveRefused, Refused */
export async function checkArchive(archive: Archive, going: () => Promise<void>): Promise<void> {
  for (const [what, folder] of [['photos', 'photos'], ['models', 'meshes']] as const)
    if (archive.bytes(folder) > MOST_KEPT[what])
      throw new Refused('no-room', undefined, keptWords(what, MOST_KEPT[what]))
  await workshopIn(archive)
  const known: Known = { moulds: new Ids('library.jsonl'), casts: new Set() }
  await checkLists(archive, known.moulds)
  await checkPours(archive, known.casts, going)
  await checkPhotos(archive, known, going)
  await checkModels(archive, known, going)
  // The table is not read, but a file that was tampered with is not half trusted.
  if (archive.has('logbook.csv')) for await (const _ of archive.pieces('logbook.csv')) await going()
}
