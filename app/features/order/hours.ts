import { UNIT } from '~core/schedule/order'
import type { Shift } from '~core/schedule/windows'
import type { OrderBody } from '~contract/order'

/** Hours of the week as real instants, so that a change of the clocks harms nothing. */

const MS = 1000 * UNIT
const MONDAY_FIRST = [7, 1, 2, 3, 4, 5, 6]

/** A moment of a day, by its own clock. */
const at = (day: Date, minutes: number): number => new Date(day).setHours(0, minutes, 0, 0)

/**
 * When each person works from the zero on, in units: the first shift that has begun goes on.
 * @param zero the zero, ms @param until ms
 */
export function shiftsOf({ people, pause }: Pick<OrderBody, 'people' | 'pause'>, zero: number, until: number): Shift[][] {
  return people.map(({ days, from, to }) => {
    const shifts: Shift[] = [], day = new Date(zero)
    day.setHours(0, 0, 0, 0)
    for (; day.getTime() < until; day.setDate(day.getDate() + 1)) {
      if (!days.includes(MONDAY_FIRST[day.getDay()]!)) continue
      const parts: readonly Shift[] = pause && pause.from < to && pause.to > from
        ? [[from, Math.max(from, pause.from)], [Math.min(to, pause.to), to]]
        : [[from, to]]
      for (const [a, b] of parts) {
        const begin = Math.max(0, Math.ceil((at(day, a) - zero) / MS))
        const end = Math.floor((Math.min(until, at(day, b)) - zero) / MS)
        if (end > begin) shifts.push([begin, end])
      }
    }
    return shifts
  })
}

/** The instant of a unit. */
export const instantOf = (zero: number, unit: number): number => zero + unit * MS
/** The last whole unit before an instant. */
export const unitOf = (zero: number, instant: number): number => Math.floor((instant - zero) / MS)
