import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { untilItWorks } from './again'
import { Refused } from './api'

beforeEach(() => {
  vi.useFakeTimers()
})
afterEach(() => {
  vi.useRealTimers()
})

it('is read again after 1, 2, 4 … seconds until the server answers, and at once when it is heard of again', async () => {
  const answers: (boolean | Error)[] = [false, new Refused('away', 0), new Refused('broken', 503, undefined, true), true]
  let reads = 0
  const heard = untilItWorks(async () => {
    const answer = answers[reads++] ?? true
    if (answer instanceof Error) throw answer
    return answer
  })
  heard()
  for (const [ms, total] of [[0, 1], [999, 1], [1, 2], [2000, 3], [4000, 4], [60_000, 4]] as const) {
    await vi.advanceTimersByTimeAsync(ms)
    expect(reads).toBe(total)
  }
  heard()
  await vi.advanceTimersByTimeAsync(0)
  expect(reads).toBe(5)
})

it('what is heard of while an answer is on its way is read once more; what the server refuses is not', async () => {
  let reads = 0, let1 = () => {}
  const heard = untilItWorks(() => {
    reads++
    return new Promise((done, failed) => {
      let1 = reads === 1 ? () => done(true) : () => failed(new Refused('gone', 404, undefined, true))
    })
  })
  heard()
  heard()
  heard()
  let1()
  await vi.advanceTimersByTimeAsync(0)
  expect(reads).toBe(2)
  let1()
  await vi.advanceTimersByTimeAsync(60_000)
  expect(reads).toBe(2)
})
