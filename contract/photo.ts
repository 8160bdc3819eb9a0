import { z } from './zod'

/**
 * A photo kept with a mould or with a cast: JPEG, small enough for one request, without anything a camera writes beside
 * the picture.
 */
export const PHOTO_BYTES = 900_000
export const PHOTO_SIDE = 2400
export const MOST_PHOTOS = 40

/** What a photo is of. */
export type PhotoSubject = { readonly mould: string } | { readonly pour: string, readonly cast: string }

const cast = z.string().regex(/^\d{1,3}\.\d{1,3}$/, 'That is no cast.')
export const photoSubjectSchema = z.union([z.object({ mould: z.uuid() }), z.object({ pour: z.uuid(), cast })])
const caption = z.string().trim().max(200).default('')
export const photoQuerySchema = z.union([
  z.object({ mould: z.uuid(), caption }),
  z.object({ pour: z.uuid(), cast, caption }),
])

export type KeptPhoto = Partial<Record<'mould' | 'pour' | 'cast', string>> & {
  readonly id: string
  readonly caption: string
  readonly width: number
  readonly height: number
  readonly bytes: number
  readonly sha256: string
}
