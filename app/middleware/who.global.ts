import { Refused } from '~/sync/api'
import { useLive } from '~/sync/live'
import { useRecords } from '~/sync/records'
import { useSession } from '~/sync/session'

/** Asks once who is here; people who are not signed in see the entrance. */
export default defineNuxtRouteMiddleware(async (to) => {
  // A wall display belongs to nobody: its link is its key.
  if (to.path.startsWith('/wall/')) return
  const session = useSession()
  if (!session.facts) {
    try {
      await session.load()
    }
    catch (error) {
      throw createError({
        statusCode: 503,
        message: error instanceof Refused ? error.sentence : 'The workshop’s server does not answer.',
        fatal: true,
      })
    }
  }
  const here = session.person !== undefined
  if (!here && to.path !== '/sign-in')
    return navigateTo({ path: '/sign-in', query: to.path === '/' ? {} : { to: to.fullPath } })
  if (here) {
    useLive().start()
    // Not waited for: an older tab may hold the store, and the page says so.
    void useRecords().load()
    if (to.path === '/sign-in') return navigateTo('/')
  }
})
