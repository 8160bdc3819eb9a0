import { Refused } from '../refused'
import type { Db } from './open'

/**
 * Where workshops have their records. Everybody's first database holds who people are and what opens doors: accounts,
 * sessions, links, devices, classes, and which workshop's records are where. The records themselves, which grow, may be
 * in another, its home: workshops share no rows. Who asks for anything learns with whom they are where that is, each
 * time anew (sessions.ts, links.ts, seats.ts), so nothing here can be out of date.
 */
export interface Place {
  /** The name of its home; null for the first database. */
  readonly home: string | null
  /** Its records are on their way: for a moment nothing is read or written. */
  readonly moving: boolean
}
export const HERE: Place = { home: null, moving: false }

/** Tables of records, those that others point at first. */
export const RECORD_TABLES = [
  'library_item', 'plan', 'pour', 'pour_event', 'pour_projection', 'cast_projection', 'tally', 'logbook_word',
  'logbook_view', 'mesh', 'mesh_part', 'photo', 'import_job', 'import_thing',
] as const
export type RecordTable = typeof RECORD_TABLES[number]

const homes = new WeakMap<Db, ReadonlyMap<string, Db>>()

/** From now on this first database has others beside it, by their names. */
export function giveHomes(front: Db, others: ReadonlyMap<string, Db>): void {
  homes.set(front, others)
}

/** @throws Refused while they are moved; an error like that of a database that is away where a home is not there */
export function recordsOf(front: Db, { home, moving }: Place): Db {
  if (moving) throw new Refused('workshop-moving')
  if (home === null) return front
  const found = homes.get(front)?.get(home)
  if (!found) throw Object.assign(new Error(`The home “${home}” cannot be reached.`), { code: 'ECONNREFUSED' })
  return found
}
