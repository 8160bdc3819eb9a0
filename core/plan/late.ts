import { endUse } from '../gypsum/end-use'
import { powderClass, type PowderClassId } from '../gypsum/powders'
import { siftsPowder, soaksPowder } from '../gypsum/schools'
import { normalShare } from '../numeric/distributions'
import type { KnownBag } from '../setting/bag-character'
import { settingCurve } from '../setting/hydration'
import { centreOf } from '../setting/moments'
import { settingMix, type SettingInput } from '../setting/setting-mix'
import { pourLimit } from '../setting/flow'
import { Z80, type Celsius, type Estimate, type Metres, type Seconds } from '../units/quantity'
import { customaryPourBy } from './customs'
import type { Plan, PlanResult, PlanWorld } from './types'
import { workOutPlan } from './plan'

/**
 * Pouring late: how likely the last mould of a batch is filled after the mix has become too stiff, what that costs, and
 * what would help, each worked out. Check values: tests/published/late.test.ts.
 */

type Range = Pick<Estimate<Seconds>, 'low' | 'value' | 'high'>

/** From this chance on it is warned of, not only told (engineering guess). */
const WARNED = 0.35

/**
 * How likely pouring ends after the mix is too stiff: both ends log-normal.
 * @param poured when the last mould is full @param pourBy when it becomes too stiff
 * @example chanceLate({ low: 6, value: 8.25, high: 10.66 }, { low: 6.4, value: 9.5, high: 14 }) // 0.35
 */
export function chanceLate(poured: Range, pourBy: Range): number {
  if (!Number.isFinite(pourBy.value)) return 0
  const spread = Math.log(pourBy.value / pourBy.low) / Z80, hands = Math.log(poured.high / poured.value) / Z80
  return normalShare(Math.log(poured.value / pourBy.value) / Math.max(1e-6, Math.hypot(spread, hands)))
}

/** A gap that is 20 mm long, under 50 mm of mix: what the narrowest one is told of. */
const GAP = { length: 0.02, head: 0.05 } as const
/**
 * Narrowest slot that mix of this yield stress still fills, m: its weight against what its faces hold (first
 * principles).
 * @example narrowestGap(24, 1542, { length: 0.02, head: 0.05 }) // 0.0013
 */
export function narrowestGap(
  tau: number, density: number, { length, head }: { readonly length: Metres, readonly head: Metres } = GAP,
): Metres {
  return 2 * tau * length / (density * 9.80665 * head)
}

export type Remedy = { readonly change: Partial<Plan>, readonly chance: number } & (
  | { readonly code: 'second-person' | 'stir-less' | 'soak-less' }
  | { readonly code: 'smaller-batches', readonly batches: number }
  | { readonly code: 'colder-water', readonly celsius: Celsius }
  | { readonly code: 'slower-powder', readonly classId: PowderClassId }
)

/** What a plan says of being late. */
export interface Late {
  readonly chance: number
  readonly warned: boolean
  /** Custom pours such a batch all the same: the model's range is wider there. */
  readonly custom: boolean
  /** Narrowest gap that fills in time, and in the last mould of a mix that is as quick as one in ten. */
  readonly inTime: Metres
  readonly quick: Metres
  /** Best first; each better than now. */
  readonly remedies: readonly Remedy[]
}

/** The batch that is poured last after its powder met water. */
const slowest = ({ batches }: PlanResult): Range =>
  batches.map(b => b.steps.poured).reduce((a, b) => b.value > a.value ? b : a)

/**
 * What is to be said of pouring late; nothing where even a quick mix is poured in time. Works out a handful of other
 * plans: tens of milliseconds.
 * @param pourBy of this plan, with its range
 */
export function pourLate(plan: Plan, world: PlanWorld, pourBy: Estimate<Seconds>): Late | undefined {
  const result = workOutPlan(plan, world)
  if (!result.setting || result.batches.length === 0) return undefined
  const poured = slowest(result)
  if (!(poured.value > pourBy.low)) return undefined
  const chance = chanceLate(poured, pourBy), early = pourBy.value / pourBy.low
  // Else what gains time would only make the batches larger.
  const asMany = result.batches.length > 1 ? { batchesAtLeast: result.batches.length } : {}
  const remedies = changesThatHelp(plan, result)
    .flatMap(({ change: alone, ...remedy }): Remedy[] => {
      const change = { ...asMany, ...alone }
      const other = workOutPlan({ ...plan, ...change }, world), centre = other.setting?.centre
      if (!centre) return []
      if (remedy.code === 'smaller-batches' && other.batches.length <= result.batches.length) return []
      const range = { low: centre.pourBy / early, value: centre.pourBy, high: centre.pourBy * early }
      return [{ ...remedy, change, chance: chanceLate(slowest(other), range) } as Remedy]
    })
    .filter(r => r.chance < chance - LEAST_GAIN)
    .sort((a, b) => a.chance - b.chance)
    // Of other powders the best is enough.
    .filter((r, i, all) => r.code !== 'slower-powder' || all.findIndex(x => x.code === r.code) === i)
  const { input } = result.setting, custom = result.batches.every(b => customaryPourBy(plan, b) !== undefined)
  return {
    chance, custom, warned: chance >= WARNED && !custom, remedies: custom ? [] : remedies,
    ...costOf({ ...input, ratio: input.ratio.value }, poured.value * early),
  }
}

/** What is hardly better is not offered. */
const LEAST_GAIN = 0.02

/** Gaps that stay empty when the last mould is filled at this moment. */
function costOf(input: SettingInput & KnownBag, at: Seconds): Pick<Late, 'inTime' | 'quick'> {
  const { stiffness } = settingCurve(input, at, 60, undefined, centreOf(input)), { amounts, fresh } = settingMix(input)
  const density = amounts.slurryDensity, limit = pourLimit(fresh)
  return {
    inTime: narrowestGap(limit, density),
    quick: narrowestGap(Math.max(limit, stiffness.at(-1) ?? 0), density),
  }
}

/** Water as cold as it comes from a cellar, and from a refrigerator. */
const COLD: readonly Celsius[] = [10, 5]
/** Stirred by a third less, but not under a minute. */
const LESS = 2 / 3, LEAST_STIRRED = 1
/** A soak that is long enough for every powder that is sifted (common practice). */
const SOAKED = 2

type Change = Remedy extends infer R ? R extends Remedy ? Omit<R, 'chance'> : never : never

/** Changes of a plan that could help, whatever they come to. */
function changesThatHelp(plan: Plan, { batches }: PlanResult): readonly Change[] {
  const found: Change[] = [], sifts = siftsPowder(plan.school)
  if (sifts && plan.hands !== 2) found.push({ code: 'second-person', change: { hands: 2 } })
  if (!plan.coats) {
    const more = batches.length + 1
    found.push({ code: 'smaller-batches', batches: more, change: { batchesAtLeast: more } })
  }
  const celsius = COLD.find(t => t < plan.waterTemperature - 2)
  if (celsius !== undefined) found.push({ code: 'colder-water', celsius, change: { waterTemperature: celsius } })
  const minutes = Math.max(LEAST_STIRRED, Math.round(4 * LESS * plan.stir.minutes) / 4)
  if (minutes < plan.stir.minutes) found.push({ code: 'stir-less', change: { stir: { ...plan.stir, minutes } } })
  if (soaksPowder(plan.school) && plan.soakMinutes > SOAKED)
    found.push({ code: 'soak-less', change: { soakMinutes: SOAKED } })
  const others = endUse(plan.endUse).suits.filter(id => id !== plan.classId)
  return [...found, ...others.map((classId): Change => ({
    code: 'slower-powder', classId, change: { classId, bag: undefined, ratio: powderClass(classId).ratio.recommended },
  }))]
}
