import type { Seconds } from '../units/quantity'
import type { Milestone, Tone } from './milestones'

/**
 * Layout of the ripple chart: a quarter circle whose drop sits at the top left, the time axis along its top edge.
 * Radius is log(1 + t / 30 s), so that a minute and a week share one picture. Units are those of `size`, the edge of
 * the square.
 */
interface RippleArc {
  readonly id: string
  readonly word: string
  readonly tone: Tone
  /** Radius of the expected (or real) moment, and of its 80 % range. */
  readonly r: number
  readonly inner: number
  readonly outer: number
  readonly past: boolean
  readonly label: { readonly x: number, readonly y: number }
}

export interface Ripples {
  readonly size: number
  /** Radius of the drop, in which the three stages before time zero are ticks. */
  readonly drop: number
  readonly ticks: readonly { readonly r: number, readonly done: boolean }[]
  readonly arcs: readonly RippleArc[]
  /** Radius of the filled disc: now. Zero before powder met water. */
  readonly now: number
  readonly axis: readonly { readonly x: number, readonly label: string }[]
}

const KNEE: Seconds = 30
const AXIS: readonly (readonly [Seconds, string])[] = [
  [60, '1 min'],
  [300, '5'],
  [900, '15'],
  [3600, '1 h'],
  [28_800, '8 h'],
  [86_400, '1 d'],
  [345_600, '4 d'],
  [1_209_600, '14 d'],
  [5_184_000, '60 d'],
]
const DROP_SHARE = 0.1

/** Radius of a time after wetting. */
export function rippleRadius(t: Seconds, until: Seconds, size: number): number {
  const drop = size * DROP_SHARE
  return drop + (size - drop) * Math.min(1, Math.log1p(Math.max(0, t) / KNEE) / Math.log1p(until / KNEE))
}

interface Box { x: number, y: number, w: number, h: number }
function overlap(a: Box, b: Box): boolean {
  return Math.abs(a.x - b.x) < (a.w + b.w) / 2 && Math.abs(a.y - b.y) < (a.h + b.h) / 2
}

const ANGLES = [38, 50, 26, 62, 44, 32, 56, 20, 68, 74, 14].map(d => d * Math.PI / 180)

/** Puts each word on its own arc, at the first angle where it covers no other word. */
function placeLabels(arcs: readonly { word: string, r: number }[], letter: number): { x: number, y: number }[] {
  const placed: Box[] = []
  return arcs.map(({ word, r }) => {
    let best: Box | undefined
    let fewest = Infinity
    for (const angle of ANGLES) {
      const box = {
        x: r * Math.cos(angle),
        y: r * Math.sin(angle),
        w: letter * 0.62 * (word.length + 1.5),
        h: letter * 1.35,
      }
      const clashes = placed.filter(p => overlap(p, box)).length
      if (clashes < fewest) {
        best = box
        fewest = clashes
      }
      if (clashes === 0) break
    }
    placed.push(best!)
    return { x: best!.x, y: best!.y }
  })
}

/**
 * @param milestones of one batch, in order of time.
 * @param now seconds after powder met water; undefined before that.
 * @param before how many of Gauge, Ready and Weigh are done (0 to 3).
 * @param letter height of a label's letters in the same units as `size`; labels are laid out so that they do not cover
 *   each other.
 */
export function layoutRipples(
  milestones: readonly Milestone[],
  now: Seconds | undefined,
  before: number,
  size: number,
  letter = size * 0.035,
): Ripples {
  const last = Math.max(1800, ...milestones.map(m => m.actual ?? m.high))
  const until = last * 1.25
  const radius = (t: Seconds) => rippleRadius(t, until, size)
  const bare = milestones.map((m) => {
    const r = radius(m.actual ?? m.value)
    return {
      id: m.id,
      word: m.word,
      tone: m.tone,
      r,
      past: m.actual !== undefined,
      inner: m.actual === undefined ? radius(m.low) : r,
      outer: m.actual === undefined ? radius(m.high) : r,
    }
  })
  const labels = placeLabels(bare, letter)
  let free = -Infinity
  const axis = AXIS.filter(([t]) => t < until).map(([t, label]) => ({ x: radius(t), label }))
    .filter(({ x, label }) => {
      const clear = x - free > letter * (0.35 * label.length + 1)
      if (clear) free = x
      return clear && x < size * 0.985
    })
  return {
    size, drop: size * DROP_SHARE,
    ticks: [0, 1, 2].map(i => ({ r: size * DROP_SHARE * (i + 1) / 4, done: i < before })),
    arcs: bare.map((a, i) => ({ ...a, label: labels[i]! })),
    now: now === undefined ? 0 : radius(now), axis,
  }
}
