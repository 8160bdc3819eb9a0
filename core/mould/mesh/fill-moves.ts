import { airPools, restingAir, type AirPools } from './air-pools'
import { decimated } from './mesh'
import { backToMesh, columnSpans, directions, dot, normalised, spanVolume, type Spans, type Vector } from './spans'
import { openingLevels, type Opening } from './trapped-air'

/** Filling, covering, tipping and topping up: where the air of a closed mould goes from one move to the next. */

/**
 * Air as small parcels fixed to the mould: x, y, z and volume, four numbers each, so that none is lost from one tilt to
 * the next.
 */
type Parcels = Float64Array

/** One tip with the openings covered, then back upright and topped up. */
export interface Move {
  /** The direction in the mould that points up while it is tipped. */
  readonly up: Vector
  /** How far it is tipped from upright, radians. */
  readonly angle: number
  /** Air that is left after it was brought back and topped up, in the mesh's unit cubed. */
  readonly left: number
}

export interface FillMoves {
  readonly volume: number
  /** Air that stays when it is only filled as it stands. */
  readonly filled: number
  readonly moves: readonly Move[]
  /** Error of about one column over the ground of the air that was moved. */
  readonly doubt: number
}

/** The columns of one side up, ready to take air in. @param openings none when they are covered. */
function poolsFor(positions: Float32Array, up: Vector, openings: readonly Opening[], cells: number): AirPools {
  const spans = columnSpans(positions, up, cells)
  return airPools(spans, openingLevels(spans, openings))
}

/** The span a point lies in, or the nearest one to it in the columns around. */
function spanAt(s: Spans, point: Vector): number {
  const a = (dot(point, s.frame.u) - s.u0) / s.h, b = (dot(point, s.frame.v) - s.v0) / s.h, z = dot(point, s.frame.w)
  let best = -1, least = Infinity
  for (let reach = 0; reach <= Math.max(s.nu, s.nv) && best === -1; reach++) {
    for (let cv = Math.max(0, Math.floor(b) - reach); cv <= Math.min(s.nv - 1, Math.floor(b) + reach); cv++) {
      for (let cu = Math.max(0, Math.floor(a) - reach); cu <= Math.min(s.nu - 1, Math.floor(a) + reach); cu++) {
        const c = cv * s.nu + cu
        for (let i = s.start[c]!; i < s.start[c + 1]!; i++) {
          const off = Math.max(0, s.lo[i]! - z, z - s.hi[i]!)
          // A column's own span, unless the point lies more than a column outside of it.
          const far = off
            + s.h * Math.hypot(Math.max(0, Math.abs(cu + 0.5 - a) - 0.5), Math.max(0, Math.abs(cv + 0.5 - b) - 0.5))
          if (far < least && (reach > 0 || off <= s.h)) {
            least = far
            best = i
          }
        }
      }
    }
  }
  return best
}

function parcelsOf(s: Spans, level: Float64Array): Parcels {
  const list: number[] = []
  for (let c = 0; c < s.nu * s.nv; c++) {
    for (let i = s.start[c]!; i < s.start[c + 1]!; i++) {
      const long = s.hi[i]! - level[i]!
      if (long <= 0) continue
      const pieces = Math.ceil(long / s.h)
      for (let k = 0; k < pieces; k++)
        list.push(
          ...backToMesh(
            s.frame,
            s.u0 + (c % s.nu + 0.5) * s.h,
            s.v0 + (Math.floor(c / s.nu) + 0.5) * s.h,
            level[i]! + (k + 0.5) * long / pieces,
          ),
          long / pieces * s.h * s.h,
        )
    }
  }
  return Float64Array.from(list)
}
const amount = (parcels: Parcels): number => {
  let sum = 0
  for (let k = 3; k < parcels.length; k += 4) sum += parcels[k]!
  return sum
}

/** Where parcels of air come to rest with another side up. */
function turned(parcels: Parcels, pools: AirPools): Parcels {
  const risen = new Float64Array(pools.nodes.length)
  for (let k = 0; k < parcels.length; k += 4) {
    const span = spanAt(pools.spans, [parcels[k]!, parcels[k + 1]!, parcels[k + 2]!])
    if (span >= 0 && pools.peak[span]! >= 0) risen[pools.peak[span]!]! += parcels[k + 3]!
  }
  return parcelsOf(pools.spans, restingAir(pools, risen))
}

/** An empty mould filled as it stands: all of it begins as air. */
function filled(pools: AirPools): Parcels {
  const { spans: s, peak, nodes } = pools
  const risen = new Float64Array(nodes.length)
  for (let i = 0; i < s.lo.length; i++) if (peak[i]! >= 0) risen[peak[i]!]! += (s.hi[i]! - s.lo[i]!) * s.h * s.h
  return parcelsOf(s, restingAir(pools, risen))
}

/**
 * Air that is left after filling upright and then making these tips, each with the openings covered, back upright and
 * topped up.
 * @returns volumes in the mesh's unit cubed: after filling, and after each tip.
 */
export function airAfterTips(
  positions: Float32Array,
  upright: Vector,
  openings: readonly Opening[],
  tips: readonly Vector[],
  cells: number,
): FillMoves {
  const standing = poolsFor(positions, upright, openings, cells)
  let air = filled(standing)
  const { h } = standing.spans
  const first = amount(air)
  const moves = tips.map((up): Move => {
    air = turned(turned(air, poolsFor(positions, up, [], cells)), standing)
    return { up: normalised(up), angle: angleBetween(up, upright), left: amount(air) }
  })
  return { volume: spanVolume(standing.spans), filled: first, moves, doubt: h * Math.cbrt(first) ** 2 }
}
const angleBetween = (a: Vector, b: Vector): number =>
  Math.acos(Math.max(-1, Math.min(1, dot(normalised(a), normalised(b)))))

/**
 * More than three tips are not done while the mix is thin (common practice). A tip has to free a fifth of the air, and
 * of the mould a share worth naming.
 */
const MOST_TIPS = 3, WORTH = 0.2, NAMED = 0.0005
/** Of tips that free nearly the same, the smallest: a degree must free this share of the air. */
const DEGREE = 0.0005
/** Farther over, a hand or a board no longer holds a full mould shut (engineering guess). */
const FARTHEST = 120 * Math.PI / 180

/**
 * The fewest, smallest tips that free the air of a filled mould, looked for one after the other. A generator that
 * yields the share done.
 */
export function* searchMoves(
  positions: Float32Array,
  upright: Vector,
  openings: readonly Opening[],
  coarse = 48,
  fine = 96,
): Generator<number, FillMoves> {
  const simple = decimated(positions, coarse * 2)
  const standing = poolsFor(simple, upright, openings, coarse)
  const volume = spanVolume(standing.spans)
  let air = filled(standing)
  const tips: Vector[] = []
  // Every direction but the nearest ones: less than ten degrees is no tip.
  const around = directions(upright, FARTHEST, 72).filter(d => angleBetween(d, upright) > 10 * Math.PI / 180)
  const covered = new Map<Vector, AirPools>()
  const tried = (up: Vector) => {
    const pools = covered.get(up) ?? poolsFor(simple, up, [], coarse)
    covered.set(up, pools)
    const after = turned(turned(air, pools), standing)
    return { up, after, cost: amount(after) / amount(air) + DEGREE * angleBetween(up, upright) * 180 / Math.PI }
  }
  for (let tip = 0; tip < MOST_TIPS; tip++) {
    if (amount(air) < NAMED * volume) break
    let best: ReturnType<typeof tried> | undefined
    for (const [i, d] of around.entries()) {
      const t = tried(d)
      if (!best || t.cost < best.cost) best = t
      if (i % 6 === 0) yield (tip + 0.8 * i / around.length) / MOST_TIPS
    }
    for (const degrees of [12, 6, 3]) {
      for (const d of directions(best!.up, degrees * Math.PI / 180, 7).slice(1)) {
        if (angleBetween(d, upright) > FARTHEST) continue
        const t = tried(d)
        if (t.cost < best!.cost) best = t
      }
      yield (tip + 0.8 + 0.2 * (12 - degrees) / 12) / MOST_TIPS
    }
    if (best!.cost > 1 - WORTH) break
    tips.push(best!.up)
    air = best!.after
  }
  const found = airAfterTips(positions, upright, openings, tips, fine)
  // What the coarse columns wanted one more tip for may be gone in the fine ones.
  const enough = found.moves.findIndex(m => m.left < NAMED * found.volume)
  return enough === -1 ? found : { ...found, moves: found.moves.slice(0, enough + 1) }
}

/**
 * The side of the mould that goes down when it is tipped, by its own axes: “−x”, or “−x and +y” when it lies between.
 */
export function sideThatGoesDown(upright: Vector, up: Vector): string {
  const names: readonly (readonly [string, Vector])[] = [
    ['+x', [1, 0, 0]],
    ['−x', [-1, 0, 0]],
    ['+y', [0, 1, 0]],
    ['−y', [0, -1, 0]],
    ['+z', [0, 0, 1]],
    ['−z', [0, 0, -1]],
  ]
  const w = normalised(upright), rise = dot(up, w)
  const across = normalised([up[0] - rise * w[0], up[1] - rise * w[1], up[2] - rise * w[2]])
  const near = names.map(([name, d]) => ({ name, down: -dot(d, across) })).filter(n => n.down > Math.sin(Math.PI / 8))
    .sort((a, b) => b.down - a.down)
  return near.slice(0, 2).map(n => n.name).join(' and ')
}
