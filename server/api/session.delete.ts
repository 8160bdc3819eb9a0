import { clearUserSession } from '#imports'
import { openRoute } from '../route'

export default openRoute({}, async ({ event }) => {
  await clearUserSession(event)
  return { ok: true }
})
