import {
  DEVICE_KINDS,
  newDeviceSchema,
  readingSchema,
  type DeviceFacts,
  type NewDevice,
} from '../devices'
import { z } from '../zod'
import { byId, done, type Table } from './route'

const facts = { id: z.uuid(), kind: z.enum(DEVICE_KINDS), name: z.string(), heardAt: z.number().optional() }
const deviceFacts: z.ZodType<DeviceFacts> = z.strictObject(facts)
const newDevice: z.ZodType<NewDevice> = z.strictObject({ ...facts, token: z.string() })

/** Devices that reach every screen through the server: docs/devices.md. */
export const DEVICE_ROUTES = {
  'GET devices': { role: 'viewer', about: 'Devices of the workshop.', answer: z.array(deviceFacts) },
  'POST devices': { role: 'owner', about: 'Brings a device in; its secret is told once.', body: newDeviceSchema, answer: newDevice },
  'DELETE devices/:id': { role: 'owner', about: 'Takes a device’s secret back.', params: byId, answer: done },
  'GET devices/:id/readings': {
    role: 'viewer', about: 'What a device measures, as it does; nothing of it is kept.', params: byId, gives: 'text/event-stream',
  },
  'POST readings': {
    role: 'anyone',
    about: 'What a device measures, one line: by its secret in the header “authorization: Bearer …”, never by a cookie.',
    body: readingSchema,
    answer: done,
  },
} as const satisfies Table
