import {
  AUDIT_CODES,
  confirmedSchema,
  factorCodeSchema,
  invitationSchema,
  newPasskeySchema,
  ownerSchema,
  passkeyUseSchema,
  passwordChangeSchema,
  personChangeSchema,
  ROLES,
  signInSchema,
  TICKET_KINDS,
  ticketSchema,
  ticketUseSchema,
  unitsSchema,
  type AccountFacts,
  type AuditRow,
  type Invitation,
  type NewTicket,
  type PersonFacts,
  type SessionFacts,
  type TicketFacts,
} from '../account'
import { z } from '../zod'
import { byId, clockFacts, done, type Table } from './route'

const role = z.enum(ROLES)
/** Of the server's own clock. */
const at = z.number().describe('Milliseconds since 1970')
const personFacts: z.ZodType<PersonFacts> = z.strictObject({
  id: z.uuid(), name: z.string(), email: z.string().optional(), role,
})
const sessionFacts: z.ZodType<SessionFacts> = z.strictObject({
  person: personFacts.optional(),
  workshop: z.strictObject({ id: z.uuid(), name: z.string(), units: unitsSchema }).optional(),
  clock: clockFacts,
  demo: z.boolean(),
  needsOwner: z.boolean(),
  needsCode: z.boolean().optional(),
  many: z.boolean().optional(),
  passkeys: z.boolean().optional(),
})
const accountFacts: z.ZodType<AccountFacts> = z.strictObject({
  email: z.string(),
  secondFactor: z.boolean(),
  recoveryLeft: z.int(),
  passkeys: z.array(z.strictObject({
    id: z.uuid(), name: z.string(), host: z.string(), madeAt: at, usedAt: at.optional(),
  })),
  sessions: z.array(z.strictObject({
    id: z.uuid(), device: z.string(), place: z.string(), madeAt: at, usedAt: at, here: z.boolean(),
  })),
  workshops: z.array(z.strictObject({ id: z.uuid(), name: z.string(), role, here: z.boolean() })),
})
const ticketFacts: z.ZodType<TicketFacts> = z.strictObject({
  kind: z.enum(TICKET_KINDS),
  workshop: z.string().optional(),
  role: role.optional(),
  name: z.string(),
  email: z.string().optional(),
})
const newTicket: z.ZodType<NewTicket> = z.strictObject({ id: z.uuid(), token: ticketSchema, endsAt: at })
const invitation: z.ZodType<Invitation> = z.strictObject({
  id: z.uuid(), kind: z.enum(TICKET_KINDS), name: z.string(), role, endsAt: at,
})
const auditRow: z.ZodType<AuditRow> = z.strictObject({
  id: z.uuid(), at, code: z.enum(AUDIT_CODES), who: z.string(), about: z.string(), place: z.string(),
})
/** What a browser is to ask its device, as WebAuthn defines it; read by the browser alone. */
const askDevice = z.looseObject({ challenge: z.string() })
const byTicket = z.object({ token: ticketSchema })

/** Who is here, who may come in, and what an account has of its own. */
export const PEOPLE_ROUTES = {
  'GET session': { role: 'anyone', about: 'Who is signed in, in which workshop, and what time it is there.', answer: sessionFacts },
  'POST session': { role: 'anyone', about: 'Signs in.', body: signInSchema, answer: done },
  'POST session/passkey/asked': {
    role: 'anyone',
    about: 'What a device is asked that shall sign somebody in with a passkey.',
    answer: askDevice,
  },
  'POST session/passkey': { role: 'anyone', about: 'Signs in with a passkey.', body: passkeyUseSchema, answer: done },
  'DELETE session': { role: 'anyone', about: 'Signs out: the session is ended.', answer: done },
  'PUT session/workshop': {
    role: 'viewer',
    about: 'Goes over to another workshop that one belongs to.',
    body: z.object({ workshop: z.uuid() }),
    answer: done,
  },
  'POST owner': {
    role: 'anyone',
    about: 'Makes the first workshop and its owner; once there is one, this door is shut.',
    body: ownerSchema,
    answer: done,
  },
  'POST demo-entrance': { role: 'anyone', about: 'Enters the demo, where this is one.', answer: done },

  'GET account': { role: 'viewer', about: 'One’s own account: where it is signed in, and which workshops it has.', answer: accountFacts },
  'PUT account/password': {
    role: 'viewer',
    about: 'Chooses another password; every other session ends.',
    body: passwordChangeSchema,
    answer: done,
  },
  'DELETE account/sessions': { role: 'viewer', about: 'Ends every other session of one’s own.', answer: done },
  'DELETE account/sessions/:id': { role: 'viewer', about: 'Ends one session of one’s own.', params: byId, answer: done },
  'POST account/second-factor': {
    role: 'viewer',
    about: 'Offers a secret for time codes; nothing changes until a code of it is told.',
    body: confirmedSchema,
    answer: z.strictObject({ secret: z.string(), uri: z.string() }),
  },
  'PUT account/second-factor': {
    role: 'viewer',
    about: 'Takes the offered secret on; answers the recovery codes, once.',
    body: factorCodeSchema,
    answer: z.strictObject({ recovery: z.array(z.string()) }),
  },
  'POST account/second-factor/off': {
    role: 'viewer',
    about: 'Signs in by password alone again.',
    body: confirmedSchema,
    answer: done,
  },
  'POST account/passkeys/asked': {
    role: 'viewer',
    about: 'What a device is asked that shall make a passkey for one’s own account.',
    body: confirmedSchema,
    answer: askDevice,
  },
  'POST account/passkeys': { role: 'viewer', about: 'Takes a passkey on.', body: newPasskeySchema, answer: done },
  'DELETE account/passkeys/:id': { role: 'viewer', about: 'Forgets a passkey.', params: byId, answer: done },

  'GET people': { role: 'viewer', about: 'The people of the workshop; addresses not to viewers.', answer: z.array(personFacts) },
  'PATCH people/:id': {
    role: 'owner',
    about: 'Changes somebody’s role, or takes them out.',
    params: byId,
    body: personChangeSchema,
    answer: done,
  },
  'POST people/:id/reset': {
    role: 'owner',
    about: 'A link to a new password, for an account that belongs to this workshop alone.',
    params: byId,
    answer: newTicket,
  },
  'GET invitations': { role: 'owner', about: 'Invitations that are out.', answer: z.array(invitation) },
  'POST invitations': {
    role: 'owner',
    about: 'Invites somebody; the secret is told once.',
    body: invitationSchema,
    answer: newTicket,
  },
  'DELETE invitations/:id': { role: 'owner', about: 'Takes an invitation back.', params: byId, answer: done },
  'GET tickets/:token': { role: 'anyone', about: 'What an invitation or a reset opens.', params: byTicket, answer: ticketFacts },
  'POST tickets/:token': {
    role: 'anyone',
    about: 'Uses an invitation or a reset, once.',
    params: byTicket,
    body: ticketUseSchema,
    answer: done,
  },
  'GET audit': { role: 'owner', about: 'Who signed in, and what was changed about people.', answer: z.array(auditRow) },
} as const satisfies Table
