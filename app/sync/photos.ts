import { PHOTO_BYTES, PHOTO_SIDE, type KeptPhoto, type PhotoSubject } from '~contract/photo'
import { addressOf, Refused } from './api'
import { useChanges } from './changes'
import { remembered } from './kept'
import { nameOf } from './kept-changes'
import { useRecords } from './records'
import { useSession } from './session'

/**
 * Photos on their way to the server: made smaller here, which also leaves out place and time that a camera writes
 * beside the picture.
 */

export interface SmallPhoto { readonly blob: Blob, readonly width: number, readonly height: number }

/** Larger than any camera's. A small file can claim a picture that takes all the memory there is. */
const MOST_PIXELS = 250e6

/** Looked at before the picture is unpacked; what is no known kind of picture the browser itself refuses. */
async function claimsTooMuch(file: Blob): Promise<boolean> {
  const { imageSize } = await import('image-size')
  try {
    const { width, height } = imageSize(new Uint8Array(await file.arrayBuffer()))
    return width * height > MOST_PIXELS
  }
  catch {
    return false
  }
}

/** Tried in turn until the photo is small enough to keep. */
const TRIES = [[1, 0.88], [1, 0.75], [0.8, 0.75], [0.6, 0.75], [0.45, 0.7]] as const

/** @throws Refused when the browser cannot read it as a picture. */
export async function shrunk(file: Blob): Promise<SmallPhoto> {
  if (await claimsTooMuch(file))
    throw new Refused('This picture has more pixels than a browser can hold. Make it smaller first.', 0)
  const picture = await createImageBitmap(file, { imageOrientation: 'from-image' }).catch(() => {
    throw new Refused('This is no picture that the browser can read. Take a JPEG, PNG or WebP.', 0)
  })
  const fit = Math.min(1, PHOTO_SIDE / Math.max(picture.width, picture.height))
  for (const [part, quality] of TRIES) {
    const canvas = document.createElement('canvas')
    canvas.width = Math.max(1, Math.round(picture.width * fit * part))
    canvas.height = Math.max(1, Math.round(picture.height * fit * part))
    canvas.getContext('2d')!.drawImage(picture, 0, 0, canvas.width, canvas.height)
    const blob = await new Promise<Blob | null>(done => canvas.toBlob(done, 'image/jpeg', quality))
    if (blob && blob.size <= PHOTO_BYTES) {
      picture.close()
      return { blob, width: canvas.width, height: canvas.height }
    }
  }
  throw new Refused('This picture cannot be made small enough to keep.', 0)
}

/** Keeps a photo in this browser, and sends it when the server and what it shows are there. @throws Refused in words */
export const keepPhoto = (id: string, of: PhotoSubject, photo: SmallPhoto, caption = ''): Promise<void> =>
  useChanges().write({ target: { what: 'photo', id, of }, picture: { ...photo, caption }, isNew: true })

const isOf = (a: PhotoSubject, b: PhotoSubject) =>
  'mould' in a ? 'mould' in b && a.mould === b.mould : 'pour' in b && a.pour === b.pour && a.cast === b.cast

/** The photos of a mould or a cast, with those that wait here and without those that were taken away here. */
export async function photosOf(subject: PhotoSubject): Promise<KeptPhoto[]> {
  const told = isOnlyHere(subject)
    ? []
    : (await remembered(useSession().key ?? '', 'GET photos', { query: subject })).value
  const mine = useChanges().changes.flatMap(({ target, picture }) =>
    target.what === 'photo' && isOf(target.of, subject) ? [{ id: target.id, picture }] : [],
  )
  const waiting = mine.flatMap(({ id, picture }): KeptPhoto[] => {
    if (!picture) return []
    const { blob, ...facts } = picture
    return [{ id, ...subject, ...facts, bytes: blob.size, sha256: '' }]
  })
  return [...told.filter(p => !mine.some(m => m.id === p.id)), ...waiting]
}
/** Of a thing that only this browser knows, the server knows no photos. */
function isOnlyHere(subject: PhotoSubject): boolean {
  return 'mould' in subject
    ? (useChanges().inHand(nameOf({ what: 'item', kind: 'mould', id: subject.mould }))?.isNew ?? false)
    : useRecords().begun.some(b => b.id === subject.pour)
}

export const dropPhoto = (photo: KeptPhoto): Promise<void> =>
  useChanges().write({ target: { what: 'photo', id: photo.id, of: subjectOf(photo) } })
const subjectOf = ({ mould, pour, cast }: KeptPhoto): PhotoSubject =>
  mould === undefined ? { pour: pour!, cast: cast! } : { mould }

/** Addresses of pictures that are only here yet; they hold for as long as this page does. */
const held = new Map<string, string>()
export function photoAddress(id: string): string {
  const picture = useChanges().inHand(nameOf({ what: 'photo', id }))?.picture
  if (!picture) return addressOf('GET photos/:id', { params: { id } })
  const address = held.get(id) ?? URL.createObjectURL(picture.blob)
  held.set(id, address)
  return address
}
