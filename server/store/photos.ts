import { createHash } from 'node:crypto'
import { sql } from 'kysely'
import { MOST_PHOTOS, type KeptPhoto, type PhotoSubject } from '~contract/photo'
import { refuseBeyond } from './room'
import type { Scope } from './scope'
import { Refused } from '../refused'

const of = (scope: Scope, subject: PhotoSubject) =>
  'mould' in subject
    ? scope.select('photo').where('mould_id', '=', subject.mould)
    : scope.select('photo').where('pour_id', '=', subject.pour).where('cast_id', '=', subject.cast)

/**
 * Whether the workshop has it; it is held until the end of the transaction, so that photos of it are counted one after
 * the other.
 */
export async function there(inner: Scope, subject: PhotoSubject): Promise<boolean> {
  const found = 'mould' in subject
    ? await inner.select('library_item').select('id').where('id', '=', subject.mould).where('kind', '=', 'mould')
        .forUpdate().executeTakeFirst()
    : await inner.select('cast_projection').select('cast_id').where('pour_id', '=', subject.pour).where(
        'cast_id',
        '=',
        subject.cast,
      ).forUpdate().executeTakeFirst()
  return found !== undefined
}

/**
 * Keeps a photo with a mould or a cast; the same again is kept once. @returns false when there is no such thing, or the
 * id is somebody else's. @throws Refused
 */
export async function keepPhoto(
  scope: Scope,
  id: string,
  subject: PhotoSubject,
  caption: string,
  photo: { readonly bytes: Uint8Array, readonly width: number, readonly height: number },
): Promise<boolean> {
  return scope.transaction(async (inner) => {
    if (!await there(inner, subject)) return false
    if (await of(inner, subject).select('id').where('id', '=', id).executeTakeFirst()) return true
    const { n } = await of(inner, subject).select(sql<number>`count(*)::int`.as('n')).executeTakeFirstOrThrow()
    if (n >= MOST_PHOTOS)
      throw new Refused(
        'too-many-photos',
        undefined,
        `One thing keeps up to ${MOST_PHOTOS} photos. Take one away first.`,
      )
    await refuseBeyond(inner, 'photos', photo.bytes.length)
    const sha256 = createHash('sha256').update(photo.bytes).digest('hex')
    const made = await inner.insert('photo', [{
      id,
      ...columnsOf(subject),
      caption,
      width: photo.width,
      height: photo.height,
      sha256,
      data: Buffer.from(photo.bytes),
    }]).onConflict(c => c.columns(['workshop_id', 'id']).doNothing()).returning('id').execute()
    return made.length > 0
  })
}

/** A subject as its row has it. */
export function columnsOf(
  subject: PhotoSubject,
): { readonly mould_id: string | null, readonly pour_id: string | null, readonly cast_id: string | null } {
  return 'mould' in subject
    ? { mould_id: subject.mould, pour_id: null, cast_id: null }
    : { mould_id: null, pour_id: subject.pour, cast_id: subject.cast }
}

export async function photosOf(scope: Scope, subject: PhotoSubject): Promise<KeptPhoto[]> {
  const rows = await of(scope, subject).select(['id', 'caption', 'width', 'height', 'sha256']).select(
    sql<number>`length(data)::int`.as('bytes'),
  ).orderBy('created_at').orderBy('id').execute()
  return rows.map(r => ({ ...r, ...subject }))
}

export async function photoData(
  scope: Scope,
  id: string,
): Promise<{ readonly data: Buffer, readonly sha256: string } | undefined> {
  return scope.select('photo').select(['data', 'sha256']).where('id', '=', id).executeTakeFirst()
}

/** @returns whether there was one. */
export async function dropPhoto(scope: Scope, id: string): Promise<boolean> {
  return (await scope.remove('photo').where('id', '=', id).returning('id').execute()).length > 0
}
