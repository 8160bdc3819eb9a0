import { z } from './zod'
import { METRIC, type UnitPreferences } from '~core/units/units'

export const ROLES = ['owner', 'member', 'viewer'] as const
export type Role = typeof ROLES[number]

export const unitsSchema = z.object({
  mass: z.enum(['g', 'lb']),
  volume: z.enum(['ml', 'cup']),
  length: z.enum(['mm', 'inch']),
  temperature: z.enum(['C', 'F']),
  region: z.enum(['us', 'imperial', 'metric']).optional(),
  decimal: z.enum(['.', ',']).optional(),
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

/** Six digits of a time code, or a recovery code, as they are typed. */
const code = z.string().trim().max(40)

export const signInSchema = z.object({
  email,
  password: z.string().min(1, 'Type your password.').max(200),
  code: code.optional(),
})
export const ownerSchema = z.object({
  workshop: z.string().trim().min(1, 'Give the workshop a name.').max(80, 'Keep the name under 80 characters.'),
  name: personName, email, password, units: unitsSchema.default(METRIC),
  /** Shown where the server was started; asked of whoever comes over the network. */
  code: code.optional(),
})
export const personChangeSchema = z.object({
  role: z.enum(ROLES).optional(),
  archived: z.boolean().optional(),
})
export const passwordChangeSchema = z.object({
  old: z.string().min(1, 'Type your password as it is now.').max(200),
  password,
})
export const factorCodeSchema = z.object({ code: z.string().trim().regex(/^\d{6}$/, 'Type the six digits it shows.') })
export const confirmedSchema = z.object({ password: z.string().min(1, 'Type your password.').max(200) })

const DAMAGED = 'This passkey arrived damaged. Try it again.'
/** Bytes as base64url, as browsers tell keys (WebAuthn, 5.8). */
const bytes = z.string().max(8000).regex(/^[\w-]*$/, DAMAGED)
const keyShape = {
  id: bytes, rawId: bytes, type: z.literal('public-key'), clientExtensionResults: z.object({}).default({}),
}
/** What a device answers when it has made a key. */
export const newPasskeySchema = z.object({
  name: z.string().trim().max(80, 'Keep the name under 80 characters.').default(''),
  key: z.object({
    ...keyShape,
    response: z.object({
      clientDataJSON: bytes,
      attestationObject: bytes,
      transports: z.array(z.string().max(20)).max(10).optional(),
    }),
  }),
})
/** What a device answers when it opens something with a key. */
export const passkeyUseSchema = z.object({
  ...keyShape,
  response: z.object({
    clientDataJSON: bytes, authenticatorData: bytes, signature: bytes, userHandle: bytes.optional(),
  }),
})
export type NewPasskeyBody = z.infer<typeof newPasskeySchema>
export type PasskeyUse = z.infer<typeof passkeyUseSchema>
export interface PasskeyRow {
  readonly id: string
  readonly name: string
  /** The server's name that it was made for; it opens no other. */
  readonly host: string
  readonly madeAt: number
  readonly usedAt?: number
}

/**
 * Secrets that open one door once: into a workshop, into one of one's own on a server of many, or to a new password.
 */
export const TICKET_KINDS = ['join', 'open', 'reset'] as const
export type TicketKind = typeof TICKET_KINDS[number]
export const ticketSchema = z.string().regex(/^[\w-]{43}$/, 'This is no invitation of this server.')
export const invitationSchema = z.object({
  /** Into this workshop, or to one of their own. */
  kind: z.enum(['join', 'open']).default('join'),
  role: z.enum(ROLES).default('member'),
  name: z.string().trim().max(80, 'Keep the name under 80 characters.').default(''),
})
/** What is told to use a ticket; who is signed in already says nothing more. */
export const ticketUseSchema = z.object({
  workshop: ownerSchema.shape.workshop.optional(),
  units: unitsSchema.default(METRIC),
  name: personName.optional(),
  email: email.optional(),
  password: password.optional(),
})
export type TicketUse = z.infer<typeof ticketUseSchema>

/** Told once, when it is made. */
export interface NewTicket { readonly id: string, readonly token: string, readonly endsAt: number }
export interface Invitation {
  readonly id: string
  readonly kind: TicketKind
  readonly name: string
  readonly role: Role
  readonly endsAt: number
}
/** What a ticket says of itself to whoever holds it. */
export interface TicketFacts {
  readonly kind: TicketKind
  readonly workshop?: string
  readonly role?: Role
  readonly name: string
  /** Of the account whose password is chosen anew. */
  readonly email?: string
}

/** One browser that is signed in. */
export interface SessionRow {
  readonly id: string
  readonly device: string
  readonly place: string
  readonly madeAt: number
  readonly usedAt: number
  readonly here: boolean
}
export interface WorkshopRow {
  readonly id: string
  readonly name: string
  readonly role: Role
  readonly here: boolean
}
export interface AccountFacts {
  readonly email: string
  readonly secondFactor: boolean
  readonly recoveryLeft: number
  readonly passkeys: readonly PasskeyRow[]
  readonly sessions: readonly SessionRow[]
  readonly workshops: readonly WorkshopRow[]
}

/** What is written down about people; `who` did it, `about` whom or what. */
export const AUDIT_CODES = [
  'opened', 'signed-in', 'guessing', 'joined', 'role', 'removed', 'invited', 'invitation-taken-back', 'reset-made',
  'reset-used', 'password', 'second-factor-on', 'second-factor-off', 'passkey-added', 'passkey-removed', 'sessions-ended', 'link-made', 'link-taken-back',
  'device-made', 'device-taken-back',
] as const
export type AuditCode = typeof AUDIT_CODES[number]
export interface AuditRow {
  readonly id: string
  /** Milliseconds since 1970 on the server's own clock. */
  readonly at: number
  readonly code: AuditCode
  readonly who: string
  readonly about: string
  readonly place: string
}

export const workshopChangeSchema = z.object({
  name: z.string().trim().min(1, 'Give the workshop a name.').max(80).optional(),
  units: unitsSchema.optional(),
})
export type WorkshopChange = z.infer<typeof workshopChangeSchema>

export interface PersonFacts {
  readonly id: string
  readonly name: string
  readonly role: Role
  /** Not told to viewers, and nobody's who only stands in the record. */
  readonly email?: string
}

/** What the browser knows about who is here. */
export interface SessionFacts {
  readonly person?: PersonFacts
  readonly workshop?: { readonly id: string, readonly name: string, readonly units: UnitPreferences }
  /** The workshop's now when this was answered, and its pace. */
  readonly clock: { readonly now: number, readonly rate: number }
  readonly demo: boolean
  /** No workshop exists yet: the first person to come creates it. */
  readonly needsOwner: boolean
  /** Whoever creates it from here must know the code that the terminal shows. */
  readonly needsCode?: boolean
  /** Anyone with an invitation may open a workshop of their own here. */
  readonly many?: boolean
  /** Somebody signs in here with a passkey, so the door offers it. */
  readonly passkeys?: boolean
}
