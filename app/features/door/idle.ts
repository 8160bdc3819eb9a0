/** Waits until nobody presses anything, but no longer than so many ms; a browser that cannot say waits a while. */
export function whenIdle(act: () => void, most?: number): void {
  if (typeof requestIdleCallback === 'function') requestIdleCallback(act, most === undefined ? {} : { timeout: most })
  else setTimeout(act, Math.min(most ?? 1500, 1500))
}
