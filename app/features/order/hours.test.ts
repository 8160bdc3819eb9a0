import { describe, expect, it } from 'vitest'
import { UNIT } from '~core/schedule/order'
import { instantOf, shiftsOf, unitOf } from './hours'

const HOUR = 3600 / UNIT, DAY_MS = 86_400_000
/** A Wednesday, seven in the morning here. */
const zero = new Date(2026, 11, 2, 7).getTime()
const nine = { name: '', days: [1, 2, 3, 4, 5], from: 9 * 60, to: 17 * 60 }

describe('hours', () => {
  it('are those of the week, with the break that all take, and none at the week’s end', () => {
    const [own] = shiftsOf({ people: [nine], pause: { from: 750, to: 780 } }, zero, zero + 6 * DAY_MS)
    expect(own!.slice(0, 2)).toEqual([[2 * HOUR, 5.5 * HOUR], [6 * HOUR, 10 * HOUR]])
    const days = own!.map(([from]) => new Date(instantOf(zero, from)).getDay())
    expect(days).toEqual([3, 3, 4, 4, 5, 5, 1, 1])
    expect(own!.every(([from, to], i) => to > from && (i === 0 || from >= own![i - 1]![1]))).toBe(true)
  })

  it('a shift that has begun goes on, one that is cut by the end ends there, and no days are no shifts', () => {
    const at = new Date(2026, 11, 2, 10, 30).getTime()
    expect(shiftsOf({ people: [nine] }, at, at + 2 * 3_600_000)).toEqual([[[0, 2 * HOUR]]])
    const people = [{ ...nine, days: [] }, nine]
    expect(shiftsOf({ people }, zero, zero + DAY_MS)).toEqual([[], [[2 * HOUR, 10 * HOUR]]])
  })

  it('an instant is found again, down to the whole unit', () => {
    expect(unitOf(zero, instantOf(zero, 4711))).toBe(4711)
    expect(unitOf(zero, instantOf(zero, 4711) + 1000 * UNIT - 1)).toBe(4711)
  })
})
