import { advisedRatio, endUse, type EndUseId } from '../gypsum/end-use'
import { powderClass, type PowderClassId } from '../gypsum/powders'
import { ratioOf, scoopsFor, type SchoolId } from '../gypsum/schools'
import { solveMix } from '../gypsum/mix'
import { safeHeight, vesselVolume, type Mouth } from '../mould/gauge/vessel'
import { MOULD_MATERIALS } from '../setting/body'
import { reAdvised } from '../plan/advised'
import { workOutPlan } from '../plan/plan'
import type { BagFacts, MouldFacts, Plan, PlanResult, Printed } from '../plan/types'
import type { CubicMetres, Estimate, Kilograms, Metres, WaterRatio } from '../units/quantity'
import {
  BUCKET_SIZE_IDS, BUCKET_SIZES, KINDS, thickest, type BucketSizeId, type DoorKindId, type Measures,
} from './kinds'

/** From what a stranger says, a plan like any other: what is worked out at the door is worked out by the plan. */

/** How much one filling takes. */
export type DoorAmount
  = | { readonly by: 'measures', readonly measures: Measures }
  /** Somebody knows what one of them holds. */
    | { readonly by: 'volume', readonly volume: CubicMetres }
    /**
     * A mix that filled all of them once: what went into it, and what was left over, weighed or as deep as it stood in
     * a bucket.
     */
    | {
      readonly by: 'mix'
      readonly powder: Kilograms
      readonly water: Kilograms
      readonly left: Kilograms | { readonly deep: Metres, readonly bucket: BucketSizeId }
    }

export interface DoorWish {
  readonly kind: DoorKindId
  readonly amount: DoorAmount
  readonly count: number
  readonly classId: PowderClassId
  /** What the bag itself says. */
  readonly printed?: Printed
  readonly way: DoorWay
  /** Which bucket there is; the smallest that does unless somebody says. */
  readonly bucket?: BucketSizeId
}
/** Weighed; by eye, until powder stays on the water; by cups. */
export type DoorWay = Extract<SchoolId, 'weighed' | 'saturation' | 'scoops'>
export const DOOR_WAYS: readonly DoorWay[] = ['weighed', 'saturation', 'scoops']

/** A finger's breadth, as depth is told without a rule: the old digit, three quarters of an inch. */
export const FINGER: Metres = 0.01905

/** Most pieces that one look at a bucket is for; more belong into a plan. */
export const MOST_PIECES = 60
const USE: EndUseId = 'painted'
/** What stays in the bucket (common practice, no source). */
const LOSSES = 0.06

/** What one holds, and its 10 and 90 % bounds, m3. */
export interface Holds { readonly value: CubicMetres, readonly low: CubicMetres, readonly high: CubicMetres }
/** Why what was said gives nothing. */
export type DoorProblem = 'no-measure' | 'no-mix' | 'all-left' | 'too-much'

/** What one of them holds, with its range, or why that is not known. */
export function holdsOne(wish: DoorWish): Holds | DoorProblem {
  const { amount, kind, count } = wish, { off, volume } = KINDS[kind]
  const known = (value: CubicMetres, off: number): Holds | DoorProblem => {
    if (!(value > 0)) return 'no-measure'
    if (value > 0.2) return 'too-much'
    return { value, low: value * (1 - off), high: value * (1 + off) }
  }
  switch (amount.by) {
    case 'measures': return known(volume(amount.measures), off)
    case 'volume': return known(amount.volume, 0.03)
    case 'mix': {
      if (!(amount.powder > 0 && amount.water > 0)) return 'no-mix'
      const recipe = { powder: powderClass(wish.classId), ratio: amount.water / amount.powder, waterTemperature: 20 }
      const { slurry: made, slurryDensity } = solveMix({ ...recipe, additions: [] }, { what: 'powder', amount: amount.powder })
      const left = leftOver(amount, slurryDensity)
      // What is left is known to a quarter, by eye in the bucket; the mix itself to a few per cent.
      return made - left <= 0 ? 'all-left' : known((made - left) / count, Math.hypot(0.04, 0.25 * left / (made - left)))
    }
  }
}

function leftOver({ left }: Extract<DoorAmount, { by: 'mix' }>, density: number): CubicMetres {
  return typeof left === 'number' ? left / density : vesselVolume(BUCKET_SIZES[left.bucket], left.deep)
}

/** The mould of a wish. @param holds what one takes */
export function mouldOf(
  { kind, amount }: Pick<DoorWish, 'kind' | 'amount'>, holds: Holds, name: string,
): Omit<MouldFacts, 'id'> {
  const { form, material, round, sizes } = KINDS[kind]
  // Of one that is known by its volume alone the proportions are those of its kind.
  const usual = sizes.middle, grown = Math.cbrt(holds.value / KINDS[kind].volume(usual))
  const m = amount.by === 'measures'
    ? amount.measures
    : { width: usual.width * grown, length: usual.length * grown, depth: usual.depth * grown }
  const mouth: Mouth = round
    ? { shape: 'round', width: m.width, length: m.width }
    : { shape: 'rectangular', width: m.width, length: kind === 'hand' ? m.depth : m.length }
  return {
    name, material, form, mouth, ...kind === 'print' && { kind: 'print' },
    volume: { value: holds.value, low: holds.low, high: holds.high },
    wall: MOULD_MATERIALS[material].usualWall, section: thickest(m), fragile: false,
  }
}

/** The smallest of the usual buckets that holds so much with room to stir; the largest where none does. */
export function smallestBucket(mix: CubicMetres): BucketSizeId {
  return BUCKET_SIZE_IDS.find(id => vesselVolume(BUCKET_SIZES[id], safeHeight(BUCKET_SIZES[id])) >= mix)
    ?? BUCKET_SIZE_IDS.at(-1)!
}

export interface DoorThings {
  readonly plan: Plan
  readonly mould: MouldFacts
  readonly bucket: { readonly id: string, readonly name: string, readonly size: BucketSizeId }
  /** Only where the bag's own words were typed: without them its class says all that is known. */
  readonly bag?: BagFacts
}
export interface DoorNames {
  readonly plan: string
  readonly mould: string
  readonly bucket: (size: BucketSizeId) => string
  readonly bag: string
}
export interface DoorIds { readonly mould: string, readonly bucket: string, readonly bag: string }
/** Until they are kept: ids that are nobody's. */
const HERE: DoorIds = {
  mould: '00000000-0000-4000-8000-000000000001',
  bucket: '00000000-0000-4000-8000-000000000002',
  bag: '00000000-0000-4000-8000-000000000003',
}

/** Plan, mould, bucket and bag of a wish, or why there are none. @param ids to keep them under */
export function thingsOf(wish: DoorWish, names: DoorNames, ids: DoorIds = HERE): DoorThings | DoorProblem {
  const holds = holdsOne(wish)
  if (typeof holds === 'string') return holds
  const { classId, printed, way } = wish, count = Math.max(1, Math.min(MOST_PIECES, Math.round(wish.count)))
  const mould = { ...mouldOf(wish, holds, names.mould), id: ids.mould }
  const size = wish.bucket ?? smallestBucket(holds.value * count * (1 + LOSSES))
  const said = printed && Object.values(printed).some(v => v !== undefined)
  const empty: Plan = {
    name: names.plan, endUse: USE, fills: [{ mould: ids.mould, count }], classId, school: way,
    ratio: advisedRatio(powderClass(classId), endUse(USE)), scoop: { volume: 250e-6, filling: 'loose', perWater: 2 },
    waterTemperature: 20, roomTemperature: 20, bucket: ids.bucket, losses: LOSSES, soakMinutes: 2,
    stir: { tool: 'hand', minutes: 2 }, additions: [], known: { what: 'moulds', amount: 0 },
    ...said && { bag: ids.bag },
  }
  return {
    plan: { ...empty, ...reAdvised(empty, { classId }, printed?.ratio) },
    mould, bucket: { id: ids.bucket, name: names.bucket(size), size },
    ...said && { bag: { id: ids.bag, name: names.bag, classId, uncertain: false, printed } },
  }
}

/** What the plan of these things gives. */
export function workOutDoor({ plan, mould, bucket, bag }: DoorThings): PlanResult {
  const vessel = BUCKET_SIZES[bucket.size]
  return workOutPlan(plan, { moulds: [mould], bucket: { id: bucket.id, name: bucket.name, vessel }, bag })
}

/** How far the ratio may be off by a way of measuring, a share to either side. */
export function offBy(
  { plan, bag }: DoorThings, way: DoorWay,
): { readonly ratio: Estimate<WaterRatio>, readonly off: number } {
  const ratio = ratioOf(way, powderClass(plan.classId), plan.ratio, plan.waterTemperature, plan.scoop, bag?.bulk)
  return { ratio, off: Math.sqrt(ratio.high / ratio.low) - 1 }
}

/**
 * Without a scale: powder by loose volume, in handfuls of 60 g (45 to 80; common practice, no source), and how full of
 * water the moulds themselves would be; not of the ground, which water washes away.
 * @param of one bucket: what goes into it, and how much of the moulds it fills
 */
export function withoutScale(
  { plan, mould }: DoorThings,
  { powder, water, fills }: { readonly powder: Kilograms, readonly water: CubicMetres, readonly fills: CubicMetres },
): { readonly powder: CubicMetres, readonly scoops: number, readonly handfuls: number, readonly mouldsFull?: number } {
  const { low, high } = powderClass(plan.classId).bulkLoose
  return {
    powder: powder / Math.sqrt(low * high),
    scoops: scoopsFor(powderClass(plan.classId), plan.ratio, plan.scoop.filling),
    handfuls: Math.round(powder / 0.06),
    ...mould.material !== 'ground' && { mouldsFull: water / fills },
  }
}
