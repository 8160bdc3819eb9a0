import { trustOf } from '../auth/door'
import { remember } from '../auth/session'
import { demoOwner } from '../store/accounts'
import { DONE, demoMode, found, refuse, serve } from '../route'

/** The one-press entrance of the demo. Outside demo mode, and on a shared address, there is no such door. */
export default serve('POST demo-entrance', async ({ event, db }) => {
  if (!demoMode() || trustOf(event) !== 'own') throw refuse(404, 'There is nothing at this address.')
  const owner = found(await demoOwner(db), 'The demo workshop is not there. Start again with bin/start --fresh-demo.')
  await remember(event, db, { accountId: owner.accountId!, workshopId: owner.workshopId, personId: owner.id })
  return DONE
})
