import { z } from './zod'
import { METRIC, type UnitPreferences } from '~core/units/units'

export const ROLES = ['owner', 'member', 'viewer'] as const
export type Role = typeof ROLES[number]

export const unitsSchema = z.object({
  mass: z.enum(['g', 'lb']),
  volume: z.enum(['ml', 'cup']),
  length: z.enum(['mm', 'inch']),
  temperature: z.enum(['C', 'F']),
}) satisfies z.ZodType<UnitPreferences>

const email = z.string().trim().toLowerCase().max(200).regex(
  /^[^\s@]+@[^\s@]+$/,
  'Type an e-mail address, such as you@example.org.',
)
const password = z.string().min(10, 'Choose a password of at least ten characters.').max(
  200,
  'That password is too long; 200 characters are enough.',
)
const personName = z.string().trim().min(1, 'Type a name.').max(80, 'Keep the name under 80 characters.')

export const signInSchema = z.object({ email, password: z.string().min(1, 'Type your password.').max(200) })
export const ownerSchema = z.object({
  workshop: z.string().trim().min(1, 'Give the workshop a name.').max(80, 'Keep the name under 80 characters.'),
  name: personName, email, password, units: unitsSchema.default(METRIC),
})
export const personSchema = z.object({ name: personName, email, password, role: z.enum(ROLES) })
export const personChangeSchema = z.object({
  role: z.enum(ROLES).optional(),
  password: password.optional(),
  archived: z.boolean().optional(),
})
export const workshopChangeSchema = z.object({
  name: z.string().trim().min(1, 'Give the workshop a name.').max(80).optional(),
  units: unitsSchema.optional(),
})
export type WorkshopChange = z.infer<typeof workshopChangeSchema>

export interface PersonFacts { readonly id: string, readonly name: string, readonly email: string, readonly role: Role }

/** What the browser knows about who is here. */
export interface SessionFacts {
  readonly person?: PersonFacts
  readonly workshop?: { readonly id: string, readonly name: string, readonly units: UnitPreferences }
  /** The workshop's now when this was answered, and its pace. */
  readonly clock: { readonly now: number, readonly rate: number }
  readonly demo: boolean
  /** No workshop exists yet: the first person to come creates it. */
  readonly needsOwner: boolean
}
