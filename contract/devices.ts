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
