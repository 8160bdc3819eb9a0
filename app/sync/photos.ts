import { PHOTO_BYTES, PHOTO_SIDE, type PhotoSubject } from '~contract/photo'
import { addressOf, ask, Refused } from './api'

/**
 * Photos on their way to the server: made smaller here, which also leaves out place and time that a camera writes
 * beside the picture.
 */

export interface SmallPhoto { readonly blob: Blob, readonly width: number, readonly height: number }

/** Tried in turn until the photo is small enough to keep. */
const TRIES = [[1, 0.88], [1, 0.75], [0.8, 0.75], [0.6, 0.75], [0.45, 0.7]] as const

/** @throws Refused when the browser cannot read it as a picture. */
export async function shrunk(file: Blob): Promise<SmallPhoto> {
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

/** @throws Refused in words. */
export async function keepPhoto(id: string, subject: PhotoSubject, photo: SmallPhoto, caption = ''): Promise<void> {
  await ask('PUT photos/:id', { params: { id }, query: { ...subject, caption }, bytes: photo.blob }).catch((error) => {
    if (!(error instanceof Refused) || error.status !== 0) throw error
    throw new Refused('The workshop’s server does not answer just now. The photo was not kept; try it again.', 0)
  })
}

export const photosOf = (subject: PhotoSubject) =>
  ask('GET photos', { query: subject })
export const dropPhoto = (id: string) => ask('DELETE photos/:id', { params: { id } })
export const photoAddress = (id: string) => addressOf('GET photos/:id', { params: { id } })
