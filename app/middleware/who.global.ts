import type { RouteLocationNormalized } from 'vue-router'
import { Refused } from '~/sync/api'
import { keepListsHere } from '~/sync/kept'
import { useLive } from '~/sync/live'
import { useRecords } from '~/sync/records'
import { useSession } from '~/sync/session'
import { haveControls } from '~/ui/controls'

declare module 'vue-router' {
  interface RouteMeta {
    /** Draws nothing of the library of controls. */
    plain?: true
  }
}

const WAIT_MS = 1000, LISTS_AFTER_MS = 4000
let first = true

/** Asks once who is here; people who are not signed in see the entrance. @returns where they are to go instead */
async function admit(to: RouteLocationNormalized) {
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
  // Whoever holds an invitation, or a link to a new password; and what is handed over belongs to whoever wrote it.
  if (to.path.startsWith('/enter/') || to.path === '/hand-over') return
  if (!here && to.path !== '/sign-in')
    return navigateTo({ path: '/sign-in', query: to.path === '/' ? {} : { to: to.fullPath } })
  if (here) {
    useLive().start()
    const loaded = useRecords().load()
    if (first) {
      first = false
      // What waits here is part of what the page shows. An older tab may hold the store, and the page says so.
      await Promise.race([loaded, new Promise(done => setTimeout(done, WAIT_MS))])
      setTimeout(() => void keepListsHere(session.key ?? ''), LISTS_AFTER_MS)
    }
    if (to.path === '/sign-in') return navigateTo('/')
  }
}

export default defineNuxtRouteMiddleware(async (to) => {
  const controls = to.meta.plain ? undefined : haveControls(useNuxtApp().vueApp)
  const [elsewhere] = await Promise.all([admit(to), controls])
  return elsewhere
})
