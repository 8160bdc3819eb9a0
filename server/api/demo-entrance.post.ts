import { remember } from '../auth/session'
import { demoOwner } from '../store/workshops'
import { DONE, demoMode, found, refuse, serve } from '../route'

/** The one-press entrance of the demo. Outside demo mode there is no such door. */
export default serve('POST demo-entrance', async ({ event, db }) => {
  if (!demoMode()) throw refuse(404, 'There is nothing at this address.')
  const owner = found(await demoOwner(db), 'The demo workshop is not there. Start again with bin/start --fresh-demo.')
  await remember(event, owner.id)
  return DONE
})
