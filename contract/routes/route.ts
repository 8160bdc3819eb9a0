import type { Role } from '../account'
import { z } from '../zod'

/**
 * What a route promises. Its method and path are its name in the table, `PUT plans/:id`; the server parses and answers
 * by it, the browser's calls are typed by it, and the description of the interface is written from it.
 */
export interface Contract {
  /** Who may call it: anyone, or people of a workshop of at least this role. */
  readonly role: Role | 'anyone'
  readonly about: string
  readonly params?: z.ZodObject
  readonly query?: z.ZodType
  readonly body?: z.ZodType
  /** Instead of a body of JSON: bytes of this media type, as they are. */
  readonly takes?: string
  readonly answer?: z.ZodType
  /** Instead of an answer of JSON: a file or a stream of this media type. */
  readonly gives?: string
  /** Only reads, and what no bench waits for: where the database has copies, one of them is asked. */
  readonly ofCopy?: true
}
type Method = 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE'
export type Table = Readonly<Record<`${Method} ${string}`, Contract>>

export const byId = z.object({ id: z.uuid() })
/** It was done, and there is nothing more to say. */
export const done = z.strictObject({ ok: z.literal(true) })
export const moment = z.number().describe('Milliseconds since 1970 on the workshop’s clock')
export const clockFacts = z.strictObject({ now: moment, rate: z.number() })
/** The ids of a list, as an enumeration takes them. */
export const idsOf = <T extends string>(list: readonly { readonly id: T }[]) => list.map(x => x.id) as [T, ...T[]]
