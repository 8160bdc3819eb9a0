import { remember } from '../auth/session'
import { demoOwner } from '../store/workshops'
import { demoMode, found, openRoute, refuse } from '../route'

/** The one-press entrance of the demo. Outside demo mode there is no such door. */
export default openRoute({}, async ({ event, db }) => {
  if (!demoMode()) throw refuse(404, 'There is nothing at this address.')
  const owner = found(await demoOwner(db), 'The demo workshop is not there. Start again with bin/start --fresh-demo.')
  await remember(event, owner.id)
  return { ok: true }
})
