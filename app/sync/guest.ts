import type { RouteName } from '~contract/routes'
import type { SessionFacts } from '~contract/account'
import { METRIC, US_CUSTOMARY, type UnitPreferences } from '~core/units/units'

/**
 * Somebody who pours without an account: all that they tell stays in this browser, under a key of their own, and
 * nothing is asked of the server. A guest is of one tab: the next one who comes sees nothing of it, unless they say so.
 */
export const GUEST_PERSON = 'guest'
const HERE = 'guest', KNOWN = 'workshop-known', TAKING = 'taking-over'
export const GUEST_KEYS = 'guest/'

/** Private windows and full stores refuse: then there is nothing. */
function read(store: () => Storage, name: string): string | undefined {
  try {
    return store().getItem(name) ?? undefined
  }
  catch {
    return undefined
  }
}
function write(store: () => Storage, name: string, value: string | undefined): boolean {
  try {
    if (value === undefined) store().removeItem(name)
    else store().setItem(name, value)
    return true
  }
  catch {
    return false
  }
}
const tab = () => sessionStorage, device = () => localStorage

/** The guest of this tab, if it is one’s. */
export const guestHere = (): string | undefined => read(tab, HERE)
export const guestKey = (guest: string): string => `${GUEST_KEYS}${guest}`
export const isGuestKey = (key: string | undefined): boolean => key?.startsWith(GUEST_KEYS) ?? false
/** From now on this tab is this guest’s. @returns false where the browser keeps nothing */
export const beGuest = (guest: string): boolean => write(tab, HERE, guest)
export const leaveGuest = (): void => void write(tab, HERE, undefined)

/** Whether somebody signed in here before, so that the workshop and not the door is what they come for. */
export const knowsWorkshop = (): boolean => read(device, KNOWN) !== undefined
export const rememberWorkshop = (there: boolean): void => void write(device, KNOWN, there ? '1' : undefined)

/**
 * Whose pours are to be taken over as soon as somebody is signed in. It holds through a reload, in this tab alone: who
 * signs in on this device another day did not ask for it.
 */
export const takingOver = (): string | undefined => read(tab, TAKING)
export const takeOverLater = (guest: string | undefined): void => void write(tab, TAKING, guest)

const UNITS = 'guest-units'
/** As the door showed them. */
export const keepUnits = (units: UnitPreferences): void => void write(tab, UNITS, JSON.stringify(units))
function unitsHere(): UnitPreferences {
  try {
    const kept = JSON.parse(read(tab, UNITS) ?? 'null') as Partial<UnitPreferences> | null
    return { ...kept?.mass === 'lb' ? US_CUSTOMARY : METRIC, ...kept?.region === 'us' && { region: 'us' } }
  }
  catch {
    return METRIC
  }
}

export function guestFacts(): SessionFacts {
  const units = unitsHere()
  return {
    person: { id: GUEST_PERSON, name: 'Guest', role: 'member' },
    workshop: { id: 'here', name: 'This device', units },
    clock: { now: Date.now(), rate: 1 }, demo: false, needsOwner: false,
  }
}

/** What a guest is told of what only a server could know: that there is nothing of it. */
const NOTHING: Partial<Record<RouteName, unknown>> = {
  'GET library/:kind': [], 'GET plans': [], 'GET pours': [], 'GET casts': [], 'GET photos': [],
}
export const nothingOf = (name: RouteName): unknown => NOTHING[name]

/** Where a guest may go; the rest is a workshop’s. */
const PLACES = /^\/($|bench|shelf|piece\/|pour\/|plan|lab$|door$|new$|help$|mix$|keep$)/
export const openToGuests = (path: string): boolean => PLACES.test(path)
