import type { BagStorage } from '../gypsum/bag-age'
import type { Addition } from '../gypsum/additions'
import type { SkyId, Standing } from '../drying/places'
import type { EndUseId } from '../gypsum/end-use'
import type { Measures } from '../gypsum/measuring'
import type { Mix } from '../gypsum/mix'
import type { PowderClass, PowderClassId, Span } from '../gypsum/powders'
import type { SchoolId, Scoop } from '../gypsum/schools'
import type { Stirring } from '../gypsum/stirring'
import type { FormId, Likeness } from '../drawing/form-ids'
import type { Gauge } from '../mould/gauge/gauge'
import type { Mouth, Vessel } from '../mould/gauge/vessel'
import type { ReadyFacts } from '../mould/readiness'
import type { KnownBag, Six, Three } from '../setting/bag-character'
import type { MouldMaterial, SettingPlaceId } from '../setting/body'
import type { SettingCurve } from '../setting/hydration'
import type { centreMoments, MomentsInput } from '../setting/moments'
import type { Celsius, CubicMetres, Estimate, Kilograms, Metres, Seconds, WaterRatio } from '../units/quantity'
import type { Pace } from './batches/pace'
import type { BubbleWay } from './bubbles'
import type { CoatOf, Coats } from './batches/coats'
import type { Problem } from './problems'

/**
 * What a plan is, what it is made with, and what follows from it. Masses in kg, volumes in m3, lengths in m, times in
 * s.
 */

export interface MouldFacts extends Partial<Pick<ReadyFacts, 'halves' | 'cradle' | 'pourHole' | 'wear' | 'life'>> {
  readonly id: string
  readonly name: string
  readonly material: MouldMaterial
  /** Slurry it takes; `low` and `high` are the 10 % and 90 % quantiles. */
  readonly volume: { readonly value: CubicMetres, readonly low: CubicMetres, readonly high: CubicMetres }
  readonly mouth: Mouth
  /** Thickness of the mould's own wall, for the drawing. */
  readonly wall: Metres
  /** Thickest part of the cast. */
  readonly section: Metres
  /** Thin or undercut parts that break if opened early. */
  readonly fragile: boolean
  /** What it is drawn as, and how its own piece looks. */
  readonly form?: FormId
  readonly looks?: Likeness
  readonly kind?: string
  /** What it cost, in the workshop's money. */
  readonly cost?: number
  /** Inner face, m2, where its gauges told it. */
  readonly face?: number
  /** How it was gauged. */
  readonly gauges?: readonly Gauge[]
}

interface BucketFacts { readonly id: string, readonly name: string, readonly vessel: Vessel }

/**
 * What one pour taught of its bag's speed: mean and standard deviation of the logarithm of its rate against its class.
 */
export interface Taught {
  readonly mean: number
  readonly sd: number
  /** When, where that is known: what came later counts more. */
  readonly at?: number
  /** The version of the setting model that read it; none before there was a second one. */
  readonly model?: string
  /**
   * What it told of the bag's speed, seeds and tail together (logarithms): lower half of the precision, row by row, and
   * precision times mean. Earlier versions of the model read the speed alone.
   */
  readonly character?: { readonly precision: Six, readonly pull: Three }
}

/** What stands on a bag. */
export interface Printed {
  /** Water to powder by weight. */
  readonly ratio?: WaterRatio
  /** How long it can be poured, and when it has set, after powder meets water. */
  readonly working?: Seconds
  readonly sets?: Seconds
}

export interface BagFacts {
  readonly id: string
  readonly name: string
  readonly classId: PowderClassId
  readonly uncertain: boolean
  /** Bulk density someone measured for this bag, kg/m3. */
  readonly bulk?: Span
  /** Price of a kilogram, in the workshop's money. */
  readonly price?: number
  /**
   * What its own pours taught of its speed: mean and standard deviation of the logarithm of its rate against its class,
   * over so many batches.
   */
  readonly rate?: NonNullable<KnownBag['bagRate']> & { readonly batches: number }
  /** What stands on it. */
  readonly printed?: Printed
  /** Its cup tests: what each taught of its speed, and when. */
  readonly cups?: readonly (Taught & { readonly at: number })[]
  /** The day it was opened. */
  readonly opened?: string
  readonly storage?: BagStorage
}

/** Where a cast sets. */
export interface SettingPlace {
  readonly place: SettingPlaceId
  /** Of the air, 0 to 1. */
  readonly humidity: number
  /** What the sky is like, where it sees it. */
  readonly sky?: SkyId
}

/** What a person decides before a pour: a plain value, saved with its schema version. */
export interface Plan {
  readonly name: string
  readonly endUse: EndUseId
  readonly fills: readonly { readonly mould: string, readonly count: number }[]
  /** Where the rest of a mix goes. */
  readonly overflow?: string
  readonly classId: PowderClassId
  readonly bag?: string
  readonly school: SchoolId
  readonly ratio: WaterRatio
  readonly scoop: Scoop
  /** What is weighed and measured with; a usual kitchen scale when nobody has said. */
  readonly measures?: Measures
  readonly waterTemperature: Celsius
  readonly roomTemperature: Celsius
  readonly bucket?: string
  /** Extra mixed for what stays in the bucket, as a share of the moulds' volume. */
  readonly losses: number
  readonly soakMinutes: number
  readonly stir: Stirring
  /** How bubbles are driven out; tapped unless said. */
  readonly bubbles?: BubbleWay
  /** Two people sift together; one unless said. */
  readonly hands?: 1 | 2
  /** In at least so many batches, so that each is poured sooner. */
  readonly batchesAtLeast?: number
  readonly additions: readonly Addition[]
  /** Where the casts set, in air of the room's temperature; on a bench indoors when nobody has said. */
  readonly sets?: SettingPlace
  /** Where they dry, and in what air; on a rack in the room when nobody has said. */
  readonly dries?: Omit<Standing, 'day'>
  /** Temperature of the ground under a print; as the air when it is not said. */
  readonly groundTemperature?: Celsius
  /**
   * When the moulds are meant to be opened and when a second coat follows, seconds after powder meets water, if that is
   * decided already.
   */
  readonly openAfter?: Seconds
  readonly secondCoatAfter?: Seconds
  /** In several coats rather than poured at once: each coat is then a batch of its own. */
  readonly coats?: Coats
  /** What fixes the amount: the moulds, the powder left, or the water already in the bucket (kg). */
  readonly known: { readonly what: 'moulds' | 'powder' | 'water', readonly amount: Kilograms }
}

export interface PlanWorld {
  /** Day of the year, 1 to 366: how high the sun stands where casts dry outdoors. */
  readonly day?: number
  /** Of who plans, as their own pours have it. */
  readonly pace?: Pace
  readonly moulds: readonly MouldFacts[]
  readonly bucket?: BucketFacts
  readonly bag?: BagFacts
}

export interface BatchFill {
  readonly mould: MouldFacts
  readonly copies: number /** Number of the first of them within its kind, from 1. */
  readonly first: number
}

export interface Batch {
  readonly fills: readonly BatchFill[]
  readonly castVolume: CubicMetres
  /** Mix that is poured out again of hollow casts. */
  readonly back?: CubicMetres
  readonly mix: Mix
  /** Inside heights in the bucket: water alone where it goes in first, after the powder, and the level not to pass. */
  readonly levels?: { readonly water?: Metres, readonly final: Metres, readonly safe: Metres }
  /** Level scoops to count when the school counts scoops. */
  readonly scoops?: { readonly water: number, readonly powder: number }
  readonly steps: StepTimes
  /** Which coat of its casts this is, when they are made in coats. */
  readonly coat?: CoatOf
}

/** When each step ends, seconds after wetting, and how long the pouring itself takes. */
export interface StepTimes {
  readonly sifted: Estimate<Seconds>
  readonly soaked: Estimate<Seconds>
  readonly stirred: Estimate<Seconds>
  readonly poured: Estimate<Seconds>
  readonly pouring: Seconds
}

export interface PlanResult {
  readonly powder: PowderClass
  readonly ratio: Estimate<WaterRatio>
  readonly problems: readonly Problem[]
  readonly batches: readonly Batch[]
  readonly total: { readonly powder: Kilograms, readonly water: Kilograms, readonly slurry: CubicMetres }
  /** Moulds asked for that the known amount does not reach, and slurry left over when it reaches further. */
  readonly unfilled: number
  readonly empty: readonly { readonly name: string, readonly count: number }[]
  readonly spare: CubicMetres
  /** What the thickest cast, which speaks for the plan, will do; absent while something stands in the way. */
  readonly setting?: {
    readonly mould: MouldFacts
    readonly input: MomentsInput
    readonly centre: ReturnType<typeof centreMoments>
    /** How it warms and stiffens meanwhile. */
    readonly curve: SettingCurve
  }
}
