import { describe, expect, it } from 'vitest'
import { endOf, firstLot, type End } from './fates'

describe('what becomes of entries', () => {
  it.each<[number, ours: boolean, count: number, End]>([
    [0, false, 3, 'away'],
    [401, true, 3, 'signed-out'],
    [401, false, 3, 'signed-out'],
    [403, true, 3, 'not-allowed'],
    [403, false, 3, 'later'],
    [404, true, 1, 'set-aside'],
    [404, false, 1, 'later'],
    [400, true, 2, 'smaller'],
    [400, true, 1, 'set-aside'],
    [409, true, 1, 'set-aside'],
    [413, false, 2, 'smaller'],
    [413, false, 1, 'set-aside'],
    [422, true, 20, 'smaller'],
    [422, false, 1, 'later'],
    [429, true, 1, 'later'],
    [500, true, 1, 'later'],
    [503, true, 5, 'later'],
    [502, false, 5, 'later'],
    [302, false, 1, 'later'],
  ])('%i, the server’s own: %s, %i entries: %s', (status, ours, count, end) => {
    expect(endOf({ status, ours }, count)).toBe(end)
  })
})

describe('a lot', () => {
  it('holds no more entries and no more bytes than one request may', () => {
    const note = (length: number) => ({ text: 'ß'.repeat(length) })
    expect(firstLot([1, 2, 3, 4], { entries: 3, bytes: 100 })).toEqual([1, 2, 3])
    expect(firstLot([note(10), note(10), note(10)], { entries: 9, bytes: 70 })).toHaveLength(2)
    expect(firstLot([note(90), note(1)], { entries: 9, bytes: 70 })).toEqual([note(90)])
    expect(firstLot([])).toEqual([])
  })
})
