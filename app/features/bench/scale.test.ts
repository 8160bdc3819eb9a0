import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { useScale } from './scale'

/** A stream that the test speaks into. */
class FakeStream {
  static readonly CLOSED = 2
  static all: FakeStream[] = []
  onmessage?: (e: { data: string }) => void
  onerror?: () => void
  readyState = 1
  constructor(readonly url: string) {
    FakeStream.all.push(this)
  }

  close(): void {
    this.readyState = 2
  }

  say(line: object | string): void {
    this.onmessage?.({ data: typeof line === 'string' ? line : JSON.stringify(line) })
  }
}
const reading = (grams: number, boot = 'a') => ({ device: 'scale', boot, grams })

beforeEach(() => {
  vi.useFakeTimers()
  vi.stubGlobal('EventSource', FakeStream)
  FakeStream.all = []
  setActivePinia(createPinia())
})
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

describe('the scale on the table', () => {
  it('is listened to only when it is wanted, at its one address, and let go again', () => {
    const scale = useScale()
    scale.wanted = false
    scale.listen()
    expect(FakeStream.all).toHaveLength(0)
    scale.toggle()
    scale.listen()
    expect(FakeStream.all.map(s => s.url)).toEqual(['http://127.0.0.1:4795/readings'])
    scale.toggle()
    expect([FakeStream.all[0]!.readyState, scale.here]).toEqual([2, false])
  })

  it('weighs what it hears, passes over what is no reading, and knows when nothing comes', () => {
    const scale = useScale()
    scale.wanted = true
    scale.listen()
    const stream = FakeStream.all[0]!
    stream.say(reading(640))
    scale.tare()
    for (const noise of ['not json', { device: 'kettle', grams: 3 }, { device: 'scale', boot: 'a', grams: 'many' }])
      stream.say(noise)
    stream.say(reading(963))
    expect([scale.here, scale.weighing.net]).toEqual([true, 323])
    vi.advanceTimersByTime(2600)
    expect([scale.here, scale.weighing.net]).toEqual([false, 323])
    // It comes back with another zero: what was in there is carried on.
    stream.say(reading(0, 'b'))
    stream.say(reading(10, 'b'))
    expect([scale.here, scale.weighing.net]).toEqual([true, 333])
  })

  it('a page that was busy asks once more before it calls the scale gone: its lines are still waiting to be read', () => {
    const scale = useScale()
    scale.wanted = true
    scale.listen()
    FakeStream.all[0]!.say(reading(640))
    // The clock has gone on by more than the timer was set for.
    vi.setSystemTime(Date.now() + 4000)
    vi.advanceTimersByTime(2500)
    expect(scale.here).toBe(true)
    vi.advanceTimersByTime(2500)
    expect(scale.here).toBe(false)
  })

  it('a stream that was refused is tried again, one that only broke is left to the browser', () => {
    const scale = useScale()
    scale.wanted = true
    scale.listen()
    FakeStream.all[0]!.onerror?.()
    vi.advanceTimersByTime(5000)
    expect(FakeStream.all).toHaveLength(1)
    FakeStream.all[0]!.readyState = 2
    FakeStream.all[0]!.onerror?.()
    vi.advanceTimersByTime(3100)
    expect(FakeStream.all).toHaveLength(2)
    scale.stop()
  })
})
