import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { ask } from '~/sync/api'
import type { ClockChange } from '~contract/clock'

const BEAT_MS = 5000
const HALF_HOUR_MS = 1_800_000

/**
 * The one clock of the product: the workshop's, as the server told it, running on at its pace. Every component takes
 * time from here.
 * `now` moves a few times a second; `read()` is exact.
 */
export const useClock = defineStore('clock', () => {
  const anchored = ref({ real: Date.now(), workshop: Date.now(), rate: 1 })
  const now = ref(Date.now())
  /** The same in steps of five seconds, for lists: who draws by it is drawn anew twenty times less often. */
  const beat = computed(() => now.value - now.value % BEAT_MS)
  /** The same in steps of half an hour, for what is told by days: “yesterday”, a bag's age. */
  const halfHour = computed(() => now.value - now.value % HALF_HOUR_MS)
  const rate = computed(() => anchored.value.rate)

  function read(): number {
    const { real, workshop, rate: pace } = anchored.value
    return workshop + (Date.now() - real) * pace
  }
  /** The workshop's time at a moment of this device's own clock. */
  const at = (device: number): number => read() - (Date.now() - device) * anchored.value.rate
  function tick(): void {
    now.value = read()
  }
  /** @param workshop the workshop's now at this moment. */
  function anchor(workshop: number, pace: number): void {
    anchored.value = { real: Date.now(), workshop, rate: pace }
    tick()
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
  return { now, beat, halfHour, rate, read, at, anchor, change, start }
})
