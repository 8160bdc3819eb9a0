import type { Kilograms, Metres } from '../units/quantity'

/** The water seen from above: a grid of cells inside the rim, and how powder falls and slumps on it. */

export const GRID = 24
const inside = (i: number, j: number) => Math.hypot(i + 0.5 - GRID / 2, j + 0.5 - GRID / 2) <= GRID / 2 - 0.05

/** Column and row of each cell inside the rim, and the pairs that touch. */
export const CELLS: readonly (readonly [number, number])[] = Array.from({ length: GRID * GRID }, (_, n) =>
  [n % GRID, Math.floor(n / GRID)] as const).filter(([i, j]) => inside(i, j))
const PLACE = new Map(CELLS.map(([i, j], c) => [j * GRID + i, c]))
export const PAIRS: readonly (readonly [number, number])[] = CELLS.flatMap(([i, j], c) =>
  [[i + 1, j], [i, j + 1]].flatMap(([x, y]) => {
    const other = x! < GRID ? PLACE.get(y! * GRID + x!) : undefined
    return other === undefined ? [] : [[c, other] as const]
  }))

/** How far a handful spreads, and a heap: standard deviation, m (engineering guess). */
const SPREAD = { hand: 0.035, heap: 0.025 } as const

/**
 * Where so much powder falls, kg/m2 by cell. @param x of the middle, share of the width; @param how spread
 * @param area of the water, m2
 */
export function fallOf(
  { x, y, kg, how }: { x: number, y: number, kg: Kilograms, how: 'hand' | 'heap' | 'whole' }, width: Metres, area: number,
): Float64Array {
  const cell = area / CELLS.length, step = width / GRID
  if (how === 'whole') return new Float64Array(CELLS.length).fill(kg / area)
  const fall = Float64Array.from(CELLS, ([i, j]) => {
    const across = ((i + 0.5) / GRID - x) * GRID * step, down = ((j + 0.5) / GRID - y) * GRID * step
    return Math.exp(-(across ** 2 + down ** 2) / 2 / SPREAD[how] ** 2)
  })
  const sum = fall.reduce((a, b) => a + b, 0) * cell
  return fall.map(v => v * kg / sum)
}

/** Slopes that stand by themselves, tangent: dry powder and a wet bed; and how much of the rest slides in a tick. */
const DRY_SLOPE = Math.tan(38 * Math.PI / 180), BED_SLOPE = Math.tan(20 * Math.PI / 180), SLIDES = 0.2, MOST = 0.25
/** Passes what is too steep to the neighbour, at most a quarter of what lies there: never below nothing. */
export function slump(mass: Float64Array, perDepth: number, cellWidth: Metres, kind: 'dry' | 'bed'): void {
  const steepest = (kind === 'dry' ? DRY_SLOPE : BED_SLOPE) * cellWidth * perDepth
  for (const [a, b] of PAIRS) {
    const more = mass[a]! - mass[b]!, excess = Math.abs(more) - steepest
    if (excess <= 0) continue
    const from = more > 0 ? a : b, moved = Math.min(SLIDES * excess, MOST * mass[from]!)
    mass[a]! -= Math.sign(more) * moved
    mass[b]! += Math.sign(more) * moved
  }
}
