import { accountByEmail, workshopsOf } from '../server/store/accounts'
import { writeAudit } from '../server/store/audit'
import { connect, migrateToLatest, type Db } from '../server/store/open'
import { within } from '../server/store/scope'
import { endSessions } from '../server/store/sessions'
import { makeTicket } from '../server/store/tickets'

/** What bin/owner does, on the database itself: no server has to run, and nobody has to be signed in. */

const HERE = 'bin/owner'
const link = (token: string) => `${process.env.ADDRESS ?? ''}/enter/${token}`
const say = (line: string) => process.stdout.write(`${line}\n`)

async function list(db: Db): Promise<void> {
  const rows = await db.selectFrom('person').innerJoin('workshop', 'workshop.id', 'person.workshop_id')
    .innerJoin('account', 'account.id', 'person.account_id')
    .select(['account.email', 'person.name', 'person.role', 'person.archived_at', 'workshop.name as workshop'])
    .orderBy('workshop.name').orderBy('person.name').execute()
  if (rows.length === 0) say('Nobody is here yet.')
  for (const r of rows) say(`${r.email}  ${r.name}, ${r.archived_at ? 'taken out of' : `${r.role} of`} ${r.workshop}`)
}

async function account(db: Db, email: string) {
  const found = await accountByEmail(db, email.toLowerCase())
  if (!found) throw new Error(`Nobody signs in with ${email} here. bin/owner alone lists who does.`)
  return found
}

async function reset(db: Db, email: string): Promise<void> {
  const { id } = await account(db, email), { token } = await makeTicket(db, { kind: 'reset', accountId: id })
  for (const w of await workshopsOf(db, id))
    await writeAudit(within(db, w.id), { code: 'reset-made', who: HERE, about: w.personName })
  say(`Within an hour, ${email} opens this and chooses a new password:\n  ${link(token)}`)
}

async function makeOwner(db: Db, email: string): Promise<void> {
  const { id } = await account(db, email)
  const people = await db.updateTable('person').set({ role: 'owner', archived_at: null }).where('account_id', '=', id)
    .returning(['workshop_id', 'name']).execute()
  if (people.length === 0) throw new Error(`${email} belongs to no workshop here.`)
  // What they were allowed before stands in pages that are open: they begin anew.
  await endSessions(db, { accountId: id })
  for (const p of people) await writeAudit(within(db, p.workshop_id), { code: 'role', who: HERE, about: `${p.name} · owner` })
  say(`${email} is an owner now, of ${people.length === 1 ? 'one workshop' : `${people.length} workshops`}.`)
}

async function invite(db: Db): Promise<void> {
  const { token } = await makeTicket(db, { kind: 'open' })
  say(`Within a week, whoever opens this makes a workshop of their own here:\n  ${link(token)}`)
}

async function main([act, email = '']: readonly string[]): Promise<void> {
  const { db } = connect(process.env.DATABASE_URL!)
  try {
    await migrateToLatest(db)
    if (act === 'reset') await reset(db, email)
    else if (act === 'owner') await makeOwner(db, email)
    else if (act === 'invite') await invite(db)
    else await list(db)
  }
  finally {
    await db.destroy()
  }
}

main(process.argv.slice(2)).catch((error: Error) => {
  process.stderr.write(`${error.message}\n`)
  process.exit(1)
})
