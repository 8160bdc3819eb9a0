import 'fake-indexeddb/auto'
import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { useClock } from './clock'
import { useSession } from './session'

/** Answers that a test lets go one by one, each with the workshop's time as it was asked. */
const asked: ((now: number) => void)[] = []
beforeEach(() => {
  asked.length = 0
  setActivePinia(createPinia())
  vi.stubGlobal('fetch', () => new Promise<Response>((answer) => {
    asked.push(now => answer(new Response(JSON.stringify({ clock: { now, rate: 0 }, demo: true, needsOwner: false }))))
  }))
})
afterEach(() => vi.unstubAllGlobals())

describe('the session', () => {
  it('believes the last question only: an answer that was overtaken does not turn the clock back', async () => {
    const session = useSession()
    const loads = [session.load(), session.load()]
    await vi.waitFor(() => expect(asked).toHaveLength(2))
    asked[1]!(7_200_000)
    await vi.waitFor(() => expect(useClock().read()).toBe(7_200_000))
    asked[0]!(1_200_000)
    await Promise.all(loads)
    expect(useClock().read()).toBe(7_200_000)
    expect(session.facts?.demo).toBe(true)
  })
})
