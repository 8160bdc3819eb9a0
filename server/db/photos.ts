import { createHash } from 'node:crypto'
import { sql } from 'kysely'
import { MOST_PHOTOS, type KeptPhoto } from '~shared/photo'
import type { Scope } from './scope'

/** A mould that has its forty photos takes no more. */
export class TooMany extends Error {}

/** Keeps a photo with a mould; the same again is kept once. @returns false when there is no such mould, or the id is somebody else's. @throws TooMany */
export async function keepPhoto(scope: Scope, id: string, mould: string, caption: string, photo: { readonly bytes: Uint8Array, readonly width: number, readonly height: number }): Promise<boolean> {
  return scope.transaction(async (inner) => {
    if (!await inner.select('library_item').select('id').where('id', '=', mould).where('kind', '=', 'mould').forUpdate().executeTakeFirst()) return false
    if (await inner.select('photo').select('id').where('id', '=', id).where('mould_id', '=', mould).executeTakeFirst()) return true
    const { n } = await inner.select('photo').select(sql<number>`count(*)::int`.as('n')).where('mould_id', '=', mould).executeTakeFirstOrThrow()
    if (n >= MOST_PHOTOS) throw new TooMany()
    const sha256 = createHash('sha256').update(photo.bytes).digest('hex')
    const made = await inner.insert('photo', [{ id, mould_id: mould, caption, width: photo.width, height: photo.height, sha256, data: Buffer.from(photo.bytes) }]).onConflict(c => c.column('id').doNothing()).returning('id').execute()
    return made.length > 0
  })
}

export async function photosOfMould(scope: Scope, mould: string): Promise<KeptPhoto[]> {
  const rows = await scope.select('photo').select(['id', 'caption', 'width', 'height', 'sha256']).select(sql<number>`length(data)::int`.as('bytes')).where('mould_id', '=', mould).orderBy('created_at').orderBy('id').execute()
  return rows.map(r => ({ ...r, mould }))
}

export async function photoData(scope: Scope, id: string): Promise<{ readonly data: Buffer, readonly sha256: string } | undefined> {
  return scope.select('photo').select(['data', 'sha256']).where('id', '=', id).executeTakeFirst()
}

/** @returns whether there was one. */
export async function dropPhoto(scope: Scope, id: string): Promise<boolean> {
  return (await scope.remove('photo').where('id', '=', id).returning('id').execute()).length > 0
}
