import { newId } from './api'
import { guestKey } from './guest'
import type { Change, Picture } from './kept-changes'
import { keepLeft, readLeft } from './left-behind'
import { open } from './outbox'

/**
 * What a guest poured as a file: for a workshop that is not at this address. Its records are those that wait in the
 * browser; read in again they wait under whoever brings them, with the ids they always had.
 */
export const GUEST_FILE = 'nine-ripples-guest', VERSION = 1

/** A picture as text; a file of records has no bytes. */
async function pictureAsText({ blob, ...facts }: Picture): Promise<object> {
  const bytes = new Uint8Array(await blob.arrayBuffer())
  let text = ''
  for (let i = 0; i < bytes.length; i += 0x8000) text += String.fromCharCode(...bytes.subarray(i, i + 0x8000))
  return { ...facts, type: blob.type, base64: btoa(text) }
}

/** All that one guest told. */
export async function guestAsFile(guest: string): Promise<string> {
  const db = await open(), key = guestKey(guest)
  const [waiting, begun, changes] = await Promise.all([
    db.getAllFromIndex('waiting', 'key', key), db.getAllFromIndex('begun', 'key', key),
    db.getAllFromIndex('changes', 'key', key),
  ])
  const written = await Promise.all(changes.filter(c => c.target.what !== 'workshop')
    .map(async c => ({ ...c, ...c.picture && { picture: await pictureAsText(c.picture) } })))
  return JSON.stringify({ format: GUEST_FILE, version: VERSION, waiting, begun, changes: written })
}

interface Written { readonly base64?: string, readonly type?: string }
function pictureFromText(picture: Written & object): unknown {
  const { base64 = '', type = '', ...facts } = picture
  try {
    return { ...facts, blob: new Blob([Uint8Array.from(atob(base64), c => c.charCodeAt(0))], { type }) }
  }
  catch {
    return undefined
  }
}

const list = (value: unknown): readonly object[] =>
  Array.isArray(value) ? value.filter(v => v && typeof v === 'object') as object[] : []

/**
 * Writes a guest's file down among what waits here, as this person's own.
 * @returns how many pours came in, and how many records could not be read; undefined where it is no such file
 */
export async function takeGuestFile(
  told: unknown, key: string,
): Promise<{ readonly pours: number, readonly unread: number } | undefined> {
  const file = told as { readonly format?: unknown, readonly version?: unknown } & Record<string, unknown>
  if (file?.format !== GUEST_FILE || file.version !== VERSION) return undefined
  const [person] = key.split('@'), own = <T extends object>(one: T) => ({ ...one, key })
  const left = readLeft({
    ripples: 'left',
    waiting: list(file.waiting).map(own),
    begun: list(file.begun).map(b => ({ ...own(b), start: { ...(b as { start?: object }).start, person } })),
    changes: list(file.changes).map((c) => {
      const { picture, ...rest } = c as Change & { readonly picture?: Written & object }
      // Brought in, it is a change of its own. A file leaves out what is not there: a photo has no body.
      return { ...own(rest), body: rest.body, stamp: newId(), ...picture && { picture: pictureFromText(picture) } }
    }),
  })
  if (!left) return undefined
  await keepLeft(left)
  return { pours: left.begun.length, unread: left.unread }
}
