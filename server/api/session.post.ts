import { getRequestIP } from 'h3'
import { hashPassword, verifyPassword } from '#imports'
import { forgiveTries, takeTry } from '../auth/limit'
import { remember } from '../auth/session'
import { database } from '../database'
import { personByEmail } from '../store/workshops'
import { DONE, refuse, serve } from '../route'

let nobody: Promise<string> | undefined

/** Signs in. A wrong address takes as long as a wrong password and reads the same. */
export default serve('POST session', async ({ event, db, body }) => {
  const { pool } = await database()
  await takeTry(pool, body.email, getRequestIP(event) ?? 'unknown')
  const person = await personByEmail(db, body.email)
  nobody ??= hashPassword('no one has this password')
  const right = await verifyPassword(person?.password_hash ?? await nobody, body.password)
  if (!person || !right) throw refuse(401, 'That address and password do not belong together here.', 'password')
  await forgiveTries(pool, body.email)
  await remember(event, person.id)
  return DONE
})
