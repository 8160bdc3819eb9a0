/** Halvings after which nothing is left of any interval worth looking at. */
const HALVINGS = 60

/**
 * Where a rising function crosses nothing, by bisection.
 * @param low where it is below nothing @param high where it is above; else the end nearer to the crossing is found
 * @example bisect(0, 2, x => x * x - 2) // 1.4142…
 */
export function bisect(low: number, high: number, f: (x: number) => number): number {
  for (let i = 0; i < HALVINGS; i++) {
    const middle = (low + high) / 2
    if (f(middle) < 0) low = middle
    else high = middle
  }
  return (low + high) / 2
}
