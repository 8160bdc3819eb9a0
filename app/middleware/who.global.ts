import type { RouteLocationNormalized } from 'vue-router'
import { Refused } from '~/sync/api'
import { keepListsHere } from '~/sync/kept'
import { useLive } from '~/sync/live'
import { useRecords } from '~/sync/records'
import { guestHere, knowsWorkshop, openToGuests, takeOverLater, takingOver } from '~/sync/guest'
import { takeOver } from '~/sync/take-over'
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

/** The door is open to everybody; it finds out by itself who comes. */
const OPEN = ['/door', '/mix', '/keep']

/** A guest has the bench and what comes of it; signing in ends it, and what they told stays. */
function admitGuest(to: RouteLocationNormalized) {
  const session = useSession()
  if (to.path === '/sign-in' || to.path.startsWith('/enter/')) return session.endGuest()
  void useRecords().load()
  if (!openToGuests(to.path)) return navigateTo({ path: '/keep', query: { for: to.path } })
}

/** What somebody poured as a guest becomes theirs once they are in, also after a page that was closed in between. */
async function takeOverWaiting(key: string): Promise<void> {
  const guest = takingOver()
  if (guest === undefined) return
  await takeOver(guest, key)
  takeOverLater(undefined)
}

/** Asks once who is here; people who are not signed in see the entrance. @returns where they are to go instead */
async function admit(to: RouteLocationNormalized) {
  // A wall display belongs to nobody: its link is its key. Practice is for whoever comes, and asks nothing of anybody;
  // a seat in a class has a secret of its own.
  if (to.path.startsWith('/wall/') || /^\/(practice|join|seat)(\/|$)/.test(to.path)) return
  const session = useSession()
  if (guestHere() !== undefined) {
    if (!session.isGuest) await session.load()
    return admitGuest(to)
  }
  const open = OPEN.includes(to.path)
  if (open && !knowsWorkshop()) return
  if (!session.facts) {
    try {
      await session.load()
    }
    catch (error) {
      if (open) return
      // Over plain http nothing of a workshop is told: the way to https is.
      const isPlain = location.protocol === 'http:' && error instanceof Refused && error.status === 403
      if (isPlain) return navigateTo('/install', { external: true })
      throw createError({
        statusCode: 503,
        message: error instanceof Refused ? error.sentence : 'The workshop’s server does not answer.',
        fatal: true,
      })
    }
  }
  const here = session.person !== undefined
  // Whoever holds an invitation, or a link to a new password; and what is handed over belongs to whoever wrote it.
  if (to.path.startsWith('/enter/') || to.path === '/hand-over' || (open && !here)) return
  if (!here && to.path !== '/sign-in')
    return navigateTo({ path: '/sign-in', query: to.path === '/' ? {} : { to: to.fullPath } })
  if (here) {
    await takeOverWaiting(session.key ?? '')
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
