import { z } from './zod'

/** A photo kept with a mould: JPEG, small enough for one request, without anything a camera writes beside the picture. */
export const PHOTO_BYTES = 900_000
export const PHOTO_SIDE = 2400
export const MOST_PHOTOS = 40

export const photoQuerySchema = z.object({ mould: z.uuid(), caption: z.string().trim().max(200).default('') })

export interface KeptPhoto { readonly id: string, readonly mould: string, readonly caption: string, readonly width: number, readonly height: number, readonly bytes: number, readonly sha256: string }
