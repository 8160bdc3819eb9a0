import type { Instant } from './events'

/**
 * Telling time by a device's two clocks. The one on its wall runs on while it sleeps, but can be set; the other only
 * ever runs forward, but may stand still while the device sleeps and begins anew with each page. (W3C High Resolution
 * Time, §4: whether a monotonic clock counts time asleep is left to the system.) Milliseconds throughout.
 */
export interface Reading {
  /** The page whose monotonic clock it is. */
  readonly page: string
  readonly wall: number
  readonly mono: number
}
/** The server's time and the device's clocks at one moment. */
export interface Contact extends Reading { readonly workshop: Instant }

/** Less than this is no difference: the way to the server and back, and the correction of a clock by its network. */
export const AGREE_MS = 2000
/** Clocks that are never set part by this share at most: quartz and a clock being corrected (NTP slews by 500 ppm). */
const DRIFT = 0.001

const agree = (wall: number, mono: number): boolean => Math.abs(wall - mono) <= AGREE_MS + DRIFT * Math.max(wall, mono)

/**
 * The time between two readings of one device. Where its clocks part it slept, or one was set: a wall clock behind was
 * set back, since the other never runs fast; one ahead mostly means sleep.
 * @returns `elapsed`, and `doubt`: by how much that may be otherwise
 */
export function elapsedBetween(from: Reading, to: Reading): { readonly elapsed: number, readonly doubt: number } {
  const wall = to.wall - from.wall, mono = to.mono - from.mono
  if (from.page !== to.page) return { elapsed: Math.max(0, wall), doubt: Math.max(0, -wall) }
  if (agree(wall, mono)) return { elapsed: Math.max(0, wall), doubt: 0 }
  return { elapsed: Math.max(wall, mono), doubt: Math.abs(wall - mono) }
}

/** What was told before its time could be trusted: the readings then, and the moment that it was taken for. */
export interface Told { readonly at: Reading, readonly recordedAt: Instant }

interface Settled { readonly shift: number, readonly doubt: number }

/**
 * When something was really told, now that the server is heard again.
 * @returns what its moment is moved by, and the doubt that stays. Within one page the clocks decide together; over a
 * reload there is only the wall clock, and where that says another time than was written down, either may be: the
 * moment stays as it was written, so that the order within the device does too
 */
export function settleTold({ at, recordedAt }: Told, contact: Contact): Settled {
  if (at.page !== contact.page) {
    const other = Math.abs(contact.workshop - (contact.wall - at.wall) - recordedAt)
    return { shift: 0, doubt: other > AGREE_MS ? other : 0 }
  }
  const { elapsed, doubt } = elapsedBetween(at, contact), shift = contact.workshop - elapsed - recordedAt
  return { shift: Math.abs(shift) > AGREE_MS ? shift : 0, doubt }
}

/**
 * The same for all that one device told, in the order it was told: what is corrected never comes before what was told
 * before it.
 */
export function settleAll(
  told: readonly Told[],
  contact: Contact,
): readonly Settled[] {
  let last = -Infinity
  return told.map((one) => {
    const { shift, doubt } = settleTold(one, contact), at = Math.max(last, one.recordedAt + shift)
    last = at
    return { shift: at - one.recordedAt, doubt }
  })
}
