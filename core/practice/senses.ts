import { contentsOf, total, type Bucket, type Place } from './bucket'
import type { Piece } from './casts'
import { bucketOf, flowNow, settingOf, sinceWet, type Run } from './run'
import type { Flow } from './setting'
import { evenness, STREAKY } from './stirring'
import { LUMP_SIZES } from './types'
import { lookOf } from './wetting'
import { coarseFor, runSetting } from '../setting/hydration'
import { bodyOf } from '../setting/setting-mix'
import { coolBelow } from '../setting/touch'
import type { Seconds } from '../units/quantity'

/** What eyes and hands tell at this moment, as codes: the same signs as at the bench. Nothing hidden is told. */

export type SurfaceSign = 'empty' | 'clear' | 'heap' | 'dry-sinking' | 'islands' | 'crust'
export type FlowSign = 'water' | 'cream' | 'coats' | 'films' | 'stiff' | 'matt'
export type LumpSign = 'none' | 'few' | 'many'
export type WarmthSign = 'cold' | 'cool' | 'room' | 'warm' | 'hot'
export interface Senses {
  /** Before it is stirred, from above. */
  readonly surface?: SurfaceSign
  /** Once it is stirred: how it runs off a glove, lumps in a handful, streaks. */
  readonly flow?: FlowSign
  readonly lumps?: LumpSign
  readonly streaks?: boolean
  readonly warmth: WarmthSign
  readonly crusted: boolean
  /** Crumbs in the handful, before it falls. */
  readonly crumbs: boolean
  readonly drips: readonly string[]
}

/** A handful, m3; lumps of 2 mm are felt one time in twenty. */
const HANDFUL = 60e-6, FELT = [0.05, 1, 1] as const, NO_LUMP = 0.15, FEW = 2
/** Powder as caked as this shows its crumbs. */
export const CRUMBLY = 4

export function surfaceSign(place: Place, b: Bucket): SurfaceSign {
  if (b.strewn <= 0) return 'empty'
  const { dry, stays, clear } = lookOf(place, b), highest = Math.max(...b.bed), mean = total(b.bed) / b.bed.length
  if (dry > 0.92) return stays > 0.92 ? 'crust' : 'dry-sinking'
  if (stays > 0.04 && clear > 0.3 && highest > 1.25 * mean) return 'heap'
  return stays > 0.25 ? 'islands' : 'clear'
}

/** Lumps in a handful that can be felt. */
export function lumpsFelt(place: Place, b: Bucket): number {
  const there = Math.max(1e-9, contentsOf(place, b))
  return b.lumps.reduce((sum, kg, i) =>
    sum + FELT[i]! * kg / there * HANDFUL / (700 * Math.PI / 6 * LUMP_SIZES[i]! ** 3), 0)
}

/** Warmth against the room, K. */
const WARMTHS: readonly (readonly [number, WarmthSign])[] = [[-8, 'cold'], [-3, 'cool'], [3, 'room'], [6, 'warm']]
const warmthSign = (above: number): WarmthSign => WARMTHS.find(([to]) => above < to)?.[1] ?? 'hot'
function lumpSign(felt: number): LumpSign {
  if (felt < NO_LUMP) return 'none'
  return felt < FEW ? 'few' : 'many'
}
function flowSign({ tau, fresh, pours, webs, share }: Flow): FlowSign {
  if (share >= 1) return 'matt'
  if (tau >= webs) return 'stiff'
  if (tau >= pours) return 'films'
  if (tau >= CREAM * fresh) return 'coats'
  return tau < LIKE_WATER ? 'water' : 'cream'
}

/** A tenth of the way past the fresh stiffness it still looks like water where it is thin. */
const LIKE_WATER = 3, CREAM = 1.35

export function senses(run: Run): Senses {
  const b = bucketOf(run), { place } = run, flow = flowNow(run), stirred = settingOf(run) !== undefined
  const felt = lumpsFelt(place, b)
  const temperature = stirred ? b.temperature[0]! : b.waterTemperature
  const common = {
    warmth: warmthSign(temperature - place.setup.room), crusted: b.dirt > 0,
    crumbs: place.truth.caking > CRUMBLY,
    drips: run.pieces.filter(p => p.leaking && p.filled > 0).map(p => p.mould.id),
  }
  if (!flow) return { ...common, surface: surfaceSign(place, b) }
  return { ...common, flow: flowSign(flow), lumps: lumpSign(felt), streaks: evenness(b) < STREAKY }
}

/** What a hand laid on a filled mould tells: when it feels warm, and when it is cool again; s after wetting. */
export function feltFrom(run: Run, piece: Piece): { readonly warm: Seconds, readonly cool: Seconds } {
  if (!piece.mix) return { warm: Infinity, cool: Infinity }
  const { input } = piece.mix, air = bodyOf(input).air
  let warmest = -Infinity, warm = Infinity
  const { moments } = runSetting(input, run.place.truth.scatter, coarseFor(input.section), 0, (s) => {
    warmest = Math.max(warmest, s.outside)
    if (s.mean > 0.05 && warm === Infinity && s.outside > coolBelow(air, Math.max(air + 4, warmest))) warm = s.t
  })
  return { warm, cool: moments.coolAgain }
}
/** Whether its outside is cool again, to the hand. */
export const isCool = (run: Run, piece: Piece): boolean => sinceWet(run) >= feltFrom(run, piece).cool
