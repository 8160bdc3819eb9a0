import { sql } from 'kysely'
import { MOST_KEPT, type RoomFacts } from '~contract/limits'
import type { Scope } from './scope'
import { keptWords } from '../words'
import { Refused } from '../refused'

/** Lengths are read from where large values begin; the values themselves are not fetched. */
const bytes = sql<number>`coalesce(sum(length(data)), 0)::float8`

export async function roomOf(scope: Scope): Promise<RoomFacts> {
  const [photos, models] = await Promise.all([
    scope.select('photo').select(bytes.as('bytes')).executeTakeFirstOrThrow(),
    scope.select('mesh_part').select(bytes.as('bytes')).executeTakeFirstOrThrow(),
  ])
  return {
    photos: { bytes: photos.bytes, most: MOST_KEPT.photos },
    models: { bytes: models.bytes, most: MOST_KEPT.models },
  }
}

/** @param more bytes that are to come @param most for tests @throws Refused when that is more than is kept */
export async function refuseBeyond(
  scope: Scope,
  what: keyof RoomFacts,
  more: number,
  most: number = MOST_KEPT[what],
): Promise<void> {
  const room = await roomOf(scope)
  if (room[what].bytes + more > most) throw new Refused('no-room', undefined, keptWords(what, most))
}
