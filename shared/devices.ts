import { z } from './zod'

/** What devices say, one line of JSON each: docs/devices.md. */
export const scaleLineSchema = z.object({ device: z.literal('scale'), boot: z.string().min(1).max(100), grams: z.number().min(-1e5).max(1e5), overload: z.boolean().default(false) })

/** Where a scale, or what stands in for it, is listened to. The page may talk to no other address but its own server's. */
export const SCALE_ADDRESS = 'http://127.0.0.1:4795'
