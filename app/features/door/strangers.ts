import { computed, onMounted, ref, shallowRef } from 'vue'
import type { DoorThings } from '~core/door/door'
import type { UnitPreferences } from '~core/units/units'
import { beGuest, keepUnits, leaveGuest } from '~/sync/guest'
import { forgetSaid } from './door'
import { forgetGuest, guestsHere, type GuestPours } from '~/sync/take-over'

/**
 * Strangers at the door: whose pours are kept here, and the way to the bench. It stands without the application, which
 * begins when somebody mixes; what was worked out goes there through the tab's own store.
 */
export const HANDED = 'door-mix'
const NO_ROOM = 'This browser keeps nothing: it is private, or full. What you see here still holds; write it down.'

const two = (n: number) => String(n).padStart(2, '0')
function timeWords(at: number): string {
  const then = new Date(at), today = new Date().toDateString() === then.toDateString()
  const time = `${two(then.getHours())}:${two(then.getMinutes())}`
  return today ? time : `${then.toLocaleDateString('en-GB', { day: 'numeric', month: 'long' })}, ${time}`
}

export function useStrangers() {
  const guests = shallowRef<readonly GuestPours[]>([]), trouble = ref('')
  async function look(): Promise<void> {
    try {
      guests.value = await guestsHere()
    }
    catch {
      trouble.value = NO_ROOM
    }
  }
  onMounted(look)
  const kept = computed(() => guests.value.map(({ guest, pours }) => ({
    id: guest,
    words: `the pour of ${timeWords(pours[0]!.start.startedAt)}${pours.length > 1 ? ` and ${pours.length - 1} more` : ''}`,
  })))
  /** To the bench or to be kept, with what was worked out. The tab is a new guest's from then on. */
  function hand(things: DoorThings, units: UnitPreferences, to: 'bench' | 'keep'): void {
    try {
      sessionStorage.setItem(HANDED, JSON.stringify({ ...things, to }))
      keepUnits(units)
      // Whoever poured in this tab before is somebody else, until the door is told to go on with it.
      leaveGuest()
      forgetSaid()
    }
    catch {
      trouble.value = NO_ROOM
      return
    }
    location.assign('/mix')
  }
  function go(guest: string): void {
    const pour = guests.value.find(g => g.guest === guest)?.pours[0]
    if (pour && beGuest(guest)) location.assign(`/bench/${pour.id}`)
  }
  async function forget(guest: string): Promise<void> {
    await forgetGuest(guest)
    await look()
  }
  const mix = (things: DoorThings, units: UnitPreferences) => hand(things, units, 'bench')
  const keep = (things: DoorThings, units: UnitPreferences) => hand(things, units, 'keep')
  return { kept, trouble, mix, keep, go, forget }
}
