import { describe, expect, it } from 'vitest'
import { chanceOf, playThrough } from './chance'
import type { Round } from './round'
import { planRound } from './search'

const round: Round = {
  horizon: 900, persons: [[[0, 300], [400, 700]]], buckets: 1, bucketVolume: 4, tables: 1, setFrom: 'wet', goal: 'soonest',
  shapes: [{ id: 'a', pieces: 6, copies: 2, volume: 2, fill: 2, set: 50, open: 4, shelf: 1, due: 240 }],
  mixing: () => ({ weigh: 3, sift: 4, soak: 2, soakMax: 6, stir: 3, clean: 5, pourBy: 20 }),
}
const { table } = planRound(round, { tries: 200 })
const order = table.tasks.map((_, i) => i).sort((a, b) => table.tasks[a]!.from - table.tasks[b]!.from)
const drawn = (task: number, set: number) =>
  ({ tasks: table.tasks.map(() => task), sets: table.mixings.map(() => set) })

describe('how sure a timetable is', () => {
  it('played as it was planned ends as it was planned', () => {
    expect(playThrough(round, table, order, drawn(1, 1))).toBe(table.end)
    // What is quicker is not begun sooner; the last opening alone is shorter.
    expect(playThrough(round, table, order, drawn(0.5, 0.5))).toBe(table.end - 2)
  })

  it('every minute that each set takes longer is there at the end, once a cycle, and hands that are slow too', () => {
    const cycles = 3, later = playThrough(round, table, order, drawn(1, 60 / 50)) - table.end
    expect(later).toBeGreaterThanOrEqual(10)
    expect(later).toBeLessThanOrEqual(10 * cycles)
    expect(playThrough(round, table, order, drawn(1.5, 1))).toBeGreaterThan(table.end)
  })

  it('no doubt of the set and a wide one: later nine times in ten, in time less often; the same seed gives the same', () => {
    const narrow = chanceOf(round, table, 0.01), wide = chanceOf(round, table, 0.4)
    expect(narrow).toEqual(chanceOf(round, table, 0.01))
    // Planned with the late end: what is wider is mostly sooner than that, and sometimes far later.
    expect(wide.nineInTen).toBeGreaterThanOrEqual(table.end)
    const never = chanceOf({ ...round, shapes: round.shapes.map(s => ({ ...s, due: 10 })) }, table, 0.1)
    const always = chanceOf({ ...round, shapes: round.shapes.map(s => ({ ...s, due: 890 })) }, table, 0.1)
    expect([never.inTime, always.inTime]).toEqual([0, 1])
  })

  it('as a plain simulation of one bucket says: hands and set add up', () => {
    const one = { ...round, shapes: round.shapes.map(s => ({ ...s, pieces: 1, copies: 1 })) }
    const plan = planRound(one, { tries: 20 }).table, sd = 0.3
    // Set = wet + 50 e^(sd (z - 1.2816)); opened then, or when it was planned: the 95 % end by hand.
    const wet = plan.mixings[0]!.wet, z95 = 1.6449, by95 = wet + 50 * Math.exp(sd * (z95 - 1.2816)) + 4
    const ends = chanceOf({ ...one, shapes: one.shapes.map(s => ({ ...s, due: Math.round(by95) })) }, plan, sd, 3, 4000)
    expect(ends.inTime).toBeGreaterThan(0.91)
    expect(ends.inTime).toBeLessThan(0.98)
  })
})
