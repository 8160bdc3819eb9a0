import { clearUserSession } from '#imports'
import { DONE, serve } from '../route'

export default serve('DELETE session', async ({ event }) => {
  await clearUserSession(event)
  return DONE
})
