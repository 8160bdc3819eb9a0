import type { PowderClassId } from '../gypsum/powders'
import type { StirTool } from '../gypsum/stirring'
import type { MouldMaterial, CastShape } from '../setting/body'
import type { Celsius, Kilograms, Metres, Seconds, WaterRatio } from '../units/quantity'
import type { Addition } from '../gypsum/additions'

/** The practice bucket: what there is to practise with, what a hand can do to it, and what it is by then. */

/** What keeps air in a mould. Shares are of the detail that people look at. */
export interface Detail {
  /** Gaps as narrow as this, that long, under so much head. */
  readonly thin?: { readonly gap: Metres, readonly length: Metres, readonly share: number }
  /** Parts from which air cannot leave upwards. */
  readonly hook?: { readonly share: number }
}
export interface PracticeMould {
  readonly id: string
  /** Alike ones, filled one after the other. */
  readonly count: number
  /** Of one, m3 and m2 of its face. */
  readonly volume: number
  readonly face: number
  readonly section: Metres
  readonly height: Metres
  readonly material: MouldMaterial
  readonly shape?: CastShape
  readonly fragile?: boolean
  readonly detail?: Detail
  /** What its seam lets out until it is plugged or stiff, m3/s. */
  readonly leak?: number
  /** It is not filled but swilled: the wall that is wanted. */
  readonly wall?: Metres
  /** Custom: not opened before this, after powder met water. */
  readonly notBefore?: Seconds
}

/** What is there to begin with. What is `hidden` is never told. */
export interface Setup {
  readonly powder: PowderClassId
  /** Inside of the bucket at its rim, and what it holds, m3. */
  readonly vessel: { readonly width: Metres, readonly holds: number }
  readonly room: Celsius
  readonly ground?: Celsius
  readonly humidity?: number
  /** What was planned: powder, ratio, water, warmth of the water, soak and stirring. */
  readonly plan: {
    readonly powder: Kilograms
    readonly ratio: WaterRatio
    readonly water: Celsius
    readonly soak: Seconds
    readonly stir: Seconds
  }
  readonly moulds: readonly PracticeMould[]
  readonly hidden?: Hidden
}
export interface Hidden {
  /** Old set plaster on the wall of the bucket, of the powder's mass: seen in the picture, scrubbed off. */
  readonly dirt?: number
  readonly additions?: readonly Addition[]
  /** Multiples: how caked the powder is, how fast the bag is. */
  readonly caking?: number
  readonly rate?: number
  /** Standard deviation of the logarithm of the bag's rate. */
  readonly rateSd?: number
}

export type Vigour = 1 | 2 | 3
/** All that a learner can do, and all that a log holds. Places are shares of the width, 0 to 1. */
export type Act
  = | { readonly do: 'scrub' }
    | { readonly do: 'next-bucket' }
    | { readonly do: 'water', readonly kg: Kilograms, readonly celsius: Celsius }
    | Strew
    | { readonly do: 'lift', readonly kg: Kilograms }
    | Stir
    | { readonly do: 'tap-bucket', readonly seconds: Seconds }
    | { readonly do: 'coat', readonly mould: string }
    | { readonly do: 'tilt', readonly mould: string }
    | { readonly do: 'swill', readonly mould: string }
    | { readonly do: 'plug', readonly mould: string }
    | { readonly do: 'open', readonly mould: string }
    | { readonly do: 'paint', readonly mould: string }
    | Fill
    | { readonly do: 'tap', readonly mould: string, readonly seconds: Seconds, readonly table?: boolean }
interface Strew {
  readonly do: 'strew'
  readonly x: number
  readonly y: number
  readonly kg: Kilograms
  readonly how: Strewn
  readonly sieved?: boolean
}
interface Stir {
  readonly do: 'stir'
  readonly tool: StirTool
  readonly vigour: Vigour
  readonly above?: boolean
  readonly seconds: Seconds
}
interface Fill {
  readonly do: 'pour'
  readonly mould: string
  readonly to: number
  readonly high?: boolean
  readonly many?: boolean
}
/** A handful, a heap of it in one place, or spread over the whole surface. */
export type Strewn = 'hand' | 'heap' | 'whole'

/** An act, and how long after the end of the one before it begins; opening and painting by the time since wetting. */
export interface Entry { readonly gap: Seconds, readonly act: Act }
export type Log = readonly Entry[]

/** Sizes of lumps that are told apart, m. */
export const LUMP_SIZES = [0.002, 0.005, 0.012] as const
export type Lumps = [number, number, number]
