import { REAL_TIME } from '~contract/clock'
import type { TicketUse } from '~contract/account'
import { hashPassword, refuseEasy } from '../../auth/passwords'
import { dropFactor } from '../../auth/second-factor'
import { remember, whoIs } from '../../auth/session'
import { heldTicket } from '../../auth/tickets'
import { createAccount, personToEnter, setPassword, workshopsOf } from '../../store/accounts'
import { writeAudit } from '../../store/audit'
import type { Db } from '../../store/open'
import { dropPasskeys } from '../../store/passkeys'
import { addPerson } from '../../store/people'
import { within } from '../../store/scope'
import { endSessions, forgetDevices, type Entering } from '../../store/sessions'
import { useUp } from '../../store/tickets'
import { announce } from '../../store/announce'
import { createWorkshop } from '../../store/workshops'
import { manyMode, refuse, serve, DONE } from '../../route'
import { Refused } from '../../refused'

type Ticket = Awaited<ReturnType<typeof heldTicket>>
/** Who uses a ticket: an account there is, or one that is made of it. */
type User = { readonly name: string } & (
  | { readonly accountId: string }
  | { readonly make: { readonly email: string, readonly hash: string } }
)

/** @throws at its field what is missing to make an account */
async function newcomer(use: TicketUse, own: readonly string[]): Promise<User> {
  const { name, email, password } = use
  if (!name) throw refuse(400, 'Type your name.', 'name')
  if (!email) throw refuse(400, 'Type an e-mail address, such as you@example.org.', 'email')
  if (!password) throw refuse(400, 'Choose a password of at least ten characters.', 'password')
  await refuseEasy(password, [name, email, ...own])
  return { make: { email, hash: await hashPassword(password, true) }, name }
}

const accountOf = async (db: Db, user: User) =>
  'accountId' in user ? user.accountId : createAccount(db, { email: user.make.email, passwordHash: user.make.hash })

/** Into the workshop that invited. */
async function join(db: Db, ticket: Ticket, user: User): Promise<Entering> {
  const accountId = await accountOf(db, user), workshopId = ticket.workshopId!, scope = within(db, workshopId)
  const personId = await addPerson(scope, { accountId, name: user.name, role: ticket.role! })
  await writeAudit(scope, { code: 'joined', who: user.name, about: ticket.role! })
  await announce(db, workshopId, { what: 'people' })
  return { accountId, workshopId, personId }
}

/** To a workshop of one's own on a server of many. */
async function open(db: Db, use: TicketUse, user: User): Promise<Entering> {
  if (!manyMode()) throw new Refused('one-workshop')
  if (!use.workshop) throw refuse(400, 'Give the workshop a name.', 'workshop')
  const workshop = { name: use.workshop, units: use.units, clock: REAL_TIME, demo: false }
  return createWorkshop(db, workshop, { accountId: await accountOf(db, user), name: user.name })
}

/** To a new password: all who were signed in are out; a second factor and passkeys, lost or not, are dropped. */
async function reset(db: Db, ticket: Ticket, hash: string): Promise<Entering> {
  const accountId = ticket.accountId!, person = await personToEnter(db, accountId)
  if (!person) throw refuse(403, 'You belong to no workshop here any more. Ask an owner to invite you again.')
  // An owner's link is for an account of that workshop alone, also when it is used.
  const elsewhere = (await workshopsOf(db, accountId)).some(w => w.id !== ticket.workshopId)
  if (ticket.workshopId && elsewhere) throw new Refused('belongs-elsewhere')
  await setPassword(db, accountId, hash)
  await dropFactor(db, accountId)
  await dropPasskeys(db, accountId)
  await endSessions(db, { accountId })
  await forgetDevices(db, accountId)
  await writeAudit(within(db, person.workshopId), { code: 'reset-used', who: person.name })
  return { accountId, workshopId: person.workshopId, personId: person.id }
}

/** Uses a ticket: once, whole or not at all. Who is signed in comes as they are. */
export default serve('POST tickets/:token', async ({ event, db, params, body }) => {
  const ticket = await heldTicket(event, db, params.token)
  const here = ticket.kind === 'reset' ? undefined : await whoIs(event, db)
  let work: (trx: Db) => Promise<Entering>
  if (ticket.kind === 'reset') {
    if (!body.password) throw refuse(400, 'Choose a password of at least ten characters.', 'password')
    await refuseEasy(body.password, [ticket.email ?? ''])
    const hash = await hashPassword(body.password, true)
    work = trx => reset(trx, ticket, hash)
  }
  else {
    const user: User = here
      ? { accountId: here.accountId, name: here.name }
      : await newcomer(body, [ticket.workshop ?? '', body.workshop ?? ''])
    work = trx => ticket.kind === 'join' ? join(trx, ticket, user) : open(trx, body, user)
  }
  const entered = await db.transaction().execute(async (trx) => {
    if (!await useUp(trx, ticket.id)) throw refuse(404, 'This link was used already.')
    return work(trx)
  })
  await remember(event, db, entered)
  return DONE
})
