/**
 * Which of several things use most of what there is: the exact choice, not the order of a list.
 */

/** Nearer to all of it than this share no scale and no eye tells. */
const ENOUGH = 1e-4
/** Ways looked at before the best so far will do; far beyond what 200 moulds of a workshop ever took. */
const MOST_LOOKED_AT = 400_000

interface Kind { readonly at: readonly number[], readonly size: number }

/** Those of one size together, the largest first: which of them is taken makes no difference. */
function kindsOf(sizes: readonly number[], most: number): readonly Kind[] {
  const kinds = new Map<number, number[]>()
  sizes.forEach((size, i) => {
    if (size > 0 && size <= most) kinds.set(size, [...kinds.get(size) ?? [], i])
  })
  return [...kinds].map(([size, at]) => ({ size, at })).sort((a, b) => b.size - a.size)
}

/** What must be over whatever is chosen, where all sizes are multiples of one: by its cubic millimetres. */
function leastOver(kinds: readonly Kind[], most: number): number {
  const gcd = (a: number, b: number): number => b === 0 ? a : gcd(b, a % b)
  const grid = kinds.reduce((g, { size }) => gcd(Math.round(size * 1e9), g), 0) / 1e9
  return grid > 0 ? most - grid * Math.floor(most / grid + 1e-9) : 0
}

/**
 * The choice that leaves least over. Branch and bound over how many of each size, the largest first; a remainder met
 * before at the same size is not looked into again.
 * @param sizes of each thing, m3, in the order in which they are preferred where several choices are equal
 * @param most what all chosen may take together
 * @returns places of those chosen, in their order; within a ten thousandth of the best there is, or the best of those
 * looked at where there were too many
 * @example chooseFullest([4e-4, 3e-4, 3e-4], 6e-4) // [1, 2]
 */
export function chooseFullest(sizes: readonly number[], most: number): readonly number[] {
  const kinds = kindsOf(sizes, most * (1 + 1e-12)), enough = Math.max(0, leastOver(kinds, most)) + ENOUGH * most
  const after = kinds.map((_, k) => kinds.slice(k).reduce((sum, { size, at }) => sum + size * at.length, 0))
  const seen = kinds.map(() => new Set<number>())
  let best: readonly number[] = [], left = most, looked = 0
  const counts: number[] = kinds.map(() => 0)
  function look(k: number, rest: number): void {
    if (rest < left - 1e-12) {
      left = rest
      best = counts.slice()
    }
    if (k === kinds.length || left <= enough || looked++ > MOST_LOOKED_AT) return
    // Even all that comes would leave more than the best so far.
    if (rest - after[k]! >= left) return
    const met = Math.round(rest * 1e12)
    if (seen[k]!.has(met)) return
    seen[k]!.add(met)
    const { size, at } = kinds[k]!
    for (let n = Math.min(at.length, Math.floor(rest / size + 1e-9)); n >= 0; n--) {
      counts[k] = n
      look(k + 1, Math.max(0, rest - n * size))
    }
    counts[k] = 0
  }
  look(0, most)
  return kinds.flatMap(({ at }, k) => at.slice(0, best[k] ?? 0)).sort((a, b) => a - b)
}
