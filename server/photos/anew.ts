import PQueue from 'p-queue'
import type { Sharp, SharpOptions } from 'sharp'
import { PHOTO_BYTES, PHOTO_SIDE } from '~contract/photo'
import { Refused } from '../refused'

/** A photo as it is kept. */
export interface Photo { readonly bytes: Uint8Array, readonly width: number, readonly height: number }

/** More than any camera's: a small file can claim a picture that takes gigabytes. */
const MOST_PIXELS = 50e6
/** Tried in turn until it is small enough to keep. */
const QUALITIES = [88, 78, 66, 50]
/** Each takes tens of megabytes while it works. */
const turns = new PQueue({ concurrency: 2 })

type Codec = (bytes: Uint8Array, options: SharpOptions) => Sharp
let loading: Promise<Codec> | undefined
/** Loaded when the first photo comes; it reads JPEG and nothing else. @throws Refused where it is not installed */
function codec(): Promise<Codec> {
  loading ??= import('sharp').then(({ default: sharp }) => {
    sharp.block({ operation: ['VipsForeignLoad'] })
    sharp.unblock({ operation: ['VipsForeignLoadJpeg'] })
    sharp.cache(false)
    sharp.concurrency(1)
    return sharp as Codec
  }).catch((error: unknown) => {
    loading = undefined
    console.error(error)
    throw new Refused('no-photo-reader')
  })
  return loading
}

/**
 * A new photo turned the way it was held, decoded and encoded anew: nothing of the file that came is kept but its
 * picture. What is kept already stays as it is.
 * @returns undefined when it is no whole JPEG, or one too large @throws Refused where photos cannot be read
 */
export async function encodeAnew(bytes: Uint8Array): Promise<Photo | undefined> {
  const read = await codec()
  return turns.add(async () => {
    const options = { limitInputPixels: MOST_PIXELS, failOn: 'warning', sequentialRead: true } as const
    for (const quality of QUALITIES) {
      const made = await read(bytes, options).autoOrient()
        .resize({ width: PHOTO_SIDE, height: PHOTO_SIDE, fit: 'inside', withoutEnlargement: true })
        .jpeg({ quality }).toBuffer({ resolveWithObject: true }).catch(() => undefined)
      if (!made) return undefined
      if (made.data.length <= PHOTO_BYTES)
        return { bytes: made.data, width: made.info.width, height: made.info.height }
    }
    return undefined
  })
}
