import { useWakeLock } from '@vueuse/core'
import { onBeforeUnmount, watch } from 'vue'
import { sound, speak, vibrate } from '~/features/bench/telling'

/** Spoken while a hand is in the impression: it can press nothing and may not look. Seconds left, and what is said. */
const SAID: readonly (readonly [number, string])[] = [
  [600, 'Ten minutes more. Keep still.'],
  [300, 'Five minutes more. It feels firm; it is not done.'],
  [120, 'Two minutes more.'],
  [30, 'Half a minute.'],
  [0, 'Now. Small movements first, then draw out slowly.'],
]

/** What falls due between two looks at the clock: after a sleep only the last is still true. Seconds left at each. */
export const saidBetween = (before: number, now: number): string | undefined =>
  SAID.findLast(([at]) => before > at && now <= at)?.[1]

/** @param left seconds of the hold that are left; none while nobody holds */
export function useHold(left: () => number | undefined): void {
  const { request, release } = useWakeLock()
  watch(left, (now, before) => {
    if (now !== undefined && before === undefined) void request('screen').catch(() => {})
    if (now === undefined && before !== undefined) void release().catch(() => {})
    if (now === undefined || before === undefined) return
    const due = saidBetween(before, now)
    if (!due) return
    sound()
    vibrate()
    speak([due])
  }, { immediate: true })
  onBeforeUnmount(() => void release().catch(() => {}))
}
