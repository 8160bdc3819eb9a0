import { z } from './zod'

/** What devices say, one line of JSON each: docs/devices.md. */
export const scaleLineSchema = z.object({
  device: z.literal('scale'),
  boot: z.string().min(1).max(100),
  grams: z.number().min(-1e5).max(1e5),
  overload: z.boolean().default(false),
})
export const thermometerLineSchema = z.object({
  device: z.literal('thermometer'),
  celsius: z.number().min(-60).max(150),
})
export const roomLineSchema = z.object({
  device: z.literal('room'),
  celsius: z.number().min(-60).max(80),
  humidity: z.number().min(0).max(1),
})

export const LINES = { scale: scaleLineSchema, thermometer: thermometerLineSchema, room: roomLineSchema } as const
/** What a device posts: one line of whichever kind it is. */
export const readingSchema = z.discriminatedUnion('device', [scaleLineSchema, thermometerLineSchema, roomLineSchema])
export type Reading = z.infer<typeof readingSchema>

/** Lines a device may post, a second; a scale shows five. */
export const MOST_READINGS_PER_S = 10
/** The largest line, bytes. */
export const READING_BYTES = 1000

export const DEVICE_KINDS = ['scale', 'thermometer', 'room'] as const
export const newDeviceSchema = z.object({
  kind: z.enum(DEVICE_KINDS),
  name: z.string().trim().min(1, 'Say which one it is.').max(60, 'Keep it under 60 characters.'),
})
/** A device that posts what it measures; a bench chooses whether it listens. */
export interface DeviceFacts {
  readonly id: string
  readonly kind: DeviceId
  readonly name: string
  /** When it was heard last, on the server’s own clock; written now and then. */
  readonly heardAt?: number
}
/** Told once, when it is made: only a hash of the secret is kept. */
export interface NewDevice extends DeviceFacts { readonly token: string }

/**
 * Where devices, or what stands in for them, are listened to. The page may talk to no other address but its own
 * server's.
 */
export const DEVICE_ADDRESSES = {
  scale: 'http://127.0.0.1:4795',
  thermometer: 'http://127.0.0.1:4796',
  room: 'http://127.0.0.1:4797',
} as const
export type DeviceId = keyof typeof DEVICE_ADDRESSES
