import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import { elapsedBetween, type Contact, type Reading } from '~core/pour/device-time'
import { ask, newId } from '~/sync/api'
import type { ClockChange } from '~contract/clock'

const BEAT_MS = 5000
const HALF_HOUR_MS = 1_800_000

/**
 * The one clock of the product: the workshop's, as the server told it, running on at its pace. Every component takes
 * time from here.
 * `now` moves a few times a second; `read()` is exact.
 */
export const useClock = defineStore('clock', () => {
  const page = newId()
  const reading = (): Reading => ({ page, wall: Date.now(), mono: performance.now() })
  /** `heard` from the server by this page, and not from what was kept. */
  const anchored = shallowRef({ at: reading(), workshop: Date.now(), rate: 1, heard: false })
  const now = ref(Date.now())
  /** The same in steps of five seconds, for lists: who draws by it is drawn anew twenty times less often. */
  const beat = computed(() => now.value - now.value % BEAT_MS)
  /** The same in steps of half an hour, for what is told by days: “yesterday”, a bag's age. */
  const halfHour = computed(() => now.value - now.value % HALF_HOUR_MS)
  const rate = computed(() => anchored.value.rate)

  function read(): number {
    const { at: then, workshop, rate: pace } = anchored.value
    return workshop + elapsedBetween(then, reading()).elapsed * pace
  }
  /** The workshop's time at a moment of this device's own clock. */
  const at = (device: number): number => read() - (Date.now() - device) * anchored.value.rate
  function tick(): void {
    now.value = read()
  }
  /** @param workshop the workshop's now at this moment. @param heard whether the server says so now */
  function anchor(workshop: number, pace: number, heard = true): void {
    anchored.value = { at: reading(), workshop, rate: pace, heard }
    tick()
  }
  /**
   * The device's clocks, where what is told now has to be looked at again once the server is heard: it was not yet, or
   * the clocks have parted since. Undefined where the time is sure.
   */
  function unsure(): Reading | undefined {
    const { at: then, heard } = anchored.value, now = reading()
    return heard && elapsedBetween(then, now).doubt === 0 ? undefined : now
  }
  /**
   * Asks the server for its time; the way there and back counts half. @returns undefined when nobody is signed in: then
   * it tells no workshop's time. @throws Refused when it does not answer
   */
  async function contact(): Promise<Contact | undefined> {
    const before = performance.now(), { clock, person } = await ask('GET session')
    if (!person) return undefined
    anchor(clock.now + (performance.now() - before) / 2 * clock.rate, clock.rate)
    return { ...anchored.value.at, workshop: anchored.value.workshop }
  }
  /** Demo only: another pace, or a jump ahead in seconds. */
  async function change(body: ClockChange): Promise<void> {
    const answer = await ask('POST clock', { body })
    anchor(answer.now, answer.rate)
  }
  function start(): () => void {
    const timer = setInterval(tick, 250)
    return () => clearInterval(timer)
  }
  return { now, beat, halfHour, rate, read, at, anchor, unsure, contact, change, start }
})
