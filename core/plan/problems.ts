import { additionKind, type AdditionId } from '../gypsum/additions'
import { endUse } from '../gypsum/end-use'
import { CHEMICAL_WATER } from '../gypsum/mix'
import { waterForGrains } from '../gypsum/paste'
import { powderClass, type PowderClassId } from '../gypsum/powders'
import { schoolAdvice, type SchoolAdviceCode } from '../gypsum/schools'
import { turnsOf } from '../gypsum/stirring'
import { settingPlace } from '../setting/body'
import { freshStiffness, type SettingProblem } from '../setting/setting-mix'
import type { Celsius, CubicMetres, Estimate, Kilograms, Seconds, WaterRatio } from '../units/quantity'
import type { NotHere } from '../drying/here'
import type { CoatProblem } from './batches/coats'
import type { Plan } from './types'

/** What stands in the way of a plan, or is worth a second thought. Sentences: words.ts. */

export type PlanField
  = | 'fills' | 'ratio' | 'school' | 'bucket' | 'classId' | 'waterTemperature' | 'groundTemperature' | 'known'
    | 'additions' | 'stir' | 'endUse' | 'openAfter' | 'secondCoatAfter' | 'coats' | 'sets' | 'dries'

interface RatioSpan { readonly low: WaterRatio, readonly high: WaterRatio }

export type PlanProblem
  = | {
    readonly code: 'cannot-set'
    readonly classId: PowderClassId
    readonly ratio: WaterRatio
    readonly need: WaterRatio
    readonly use: RatioSpan
  }
  | { readonly code: 'jams', readonly ratio: WaterRatio, readonly use: RatioSpan, readonly withAdditions: boolean }
  | { readonly code: 'thick' | 'thin', readonly use: RatioSpan }
  | { readonly code: 'school-against', readonly advice: SchoolAdviceCode }
  | { readonly code: 'other-powder', readonly better: readonly PowderClassId[] }
  | { readonly code: 'not-liquid', readonly celsius: Celsius }
  | { readonly code: 'hot-water' | 'addition-share' | 'stirred-very-long' }
  | { readonly code: 'harmful-addition', readonly addition: AdditionId }
  | { readonly code: 'nearly-frozen' | 'hot-room' | 'stirred-much' | 'hardly-stirred' }
  | { readonly code: 'too-many-casts', readonly asked: number, readonly most: number }
  | { readonly code: 'no-mould' | 'no-bucket' | 'no-powder-said' | 'no-water-said' }
  | { readonly code: 'too-many-coats', readonly most: number }
  | { readonly code: 'too-little', readonly makes: CubicMetres, readonly mould: string, readonly takes: CubicMetres }
  | {
    readonly code: 'coat-over-bucket'
    readonly casts: number
    readonly takes: CubicMetres
    readonly bucket?: string
    readonly holds: CubicMetres
  }
  | {
    readonly code: 'cast-over-bucket'
    readonly mould: string
    readonly takes: CubicMetres
    readonly bucket?: string
    readonly holds: CubicMetres
  }
  | { readonly code: 'cannot-work-out', readonly why: SettingProblem }
  | { readonly code: 'never-sets' | 'very-thin-cast' | 'very-thick-cast' }
  | { readonly code: 'too-slow', readonly pourBy: Seconds }
  | { readonly code: 'hot-core', readonly hottest: Celsius }
  | { readonly code: 'opens-early', readonly from: Seconds, readonly to: Seconds }
  | { readonly code: 'coat-too-late', readonly glossGone: Seconds }
  | {
    readonly code: 'coarse-scale'
    readonly step: Kilograms
    /** Out by so much at two standard deviations; and what makes it two per cent. */
    readonly out: number
    readonly least: Kilograms
  }
  | { readonly code: 'coarse-jug', readonly out: number }
  | {
    /** Off what is printed on the bag: by shares against the mix of the pack. */
    readonly code: 'off-pack'
    readonly printed: WaterRatio
    readonly ratio: WaterRatio
    readonly strength: number
    readonly pourBy: Seconds
    readonly sets: number
  }
  | {
    /** By feel: the thin end of the range, by what share it is weaker then, and how much later it sets. */
    readonly code: 'may-end-thin'
    readonly ratio: WaterRatio
    readonly weaker: number
    readonly glossGone: Seconds
  }
  | { readonly code: 'pack-knows' }
  | { readonly code: 'coarse-scoop', readonly over: number }
  | { readonly code: 'not-mixed', readonly what: 'powder' | 'water', readonly mass: Kilograms }
  | { readonly code: 'frost-before-set' | 'set-in-rain' }
  | { readonly code: 'not-dry-here', readonly why: NotHere }
  | CoatProblem

export type Severity = 'refuse' | 'warn'

export type Problem = { readonly field: PlanField, readonly severity: Severity } & PlanProblem

/** Collects problems in the order in which they are found. */
export interface ProblemList {
  readonly found: readonly Problem[]
  readonly refused: () => boolean
  readonly add: (field: PlanField, severity: Severity, problem: PlanProblem) => void
}

export function problemList(): ProblemList {
  const found: Problem[] = []
  return {
    found,
    refused: () => found.some(p => p.severity === 'refuse'),
    add: (field, severity, problem) => void found.push({ field, severity, ...problem }),
  }
}

/** Water enough for all of it to set, thin enough to pour, and as this powder is used. */
function checkRatio(plan: Plan, ratio: WaterRatio, { add }: ProblemList): void {
  const powder = powderClass(plan.classId)
  const field: PlanField = plan.school === 'scoops' || plan.school === 'saturation' ? 'school' : 'ratio'
  const more = waterForGrains(plan)
  const use = { low: powder.ratio.low + more.low, high: powder.ratio.high + more.high }
  const need = powder.purity * CHEMICAL_WATER
  if (!(ratio > need)) add(field, 'refuse', { code: 'cannot-set', classId: plan.classId, ratio, need, use })
  else if (!freshStiffness(powder, ratio, plan.additions).flows)
    add(field, 'refuse', { code: 'jams', ratio, use, withAdditions: plan.additions.length > 0 })
  else if (ratio < use.low - 1e-9) add(field, 'warn', { code: 'thick', use })
  else if (ratio > use.high + 1e-9) add(field, 'warn', { code: 'thin', use })
}

function checkChoices(plan: Plan, { add }: ProblemList): void {
  const powder = powderClass(plan.classId)
  const advice = schoolAdvice(plan.school, powder, plan.endUse)
  if (advice.fit === 'against') {
    const forbidden = plan.school === 'saturation' && (powder.family === 'dental' || powder.family === 'investment')
    add('school', forbidden ? 'refuse' : 'warn', { code: 'school-against', advice: advice.code })
  }
  const { suits } = endUse(plan.endUse)
  if (!suits.includes(plan.classId)) add('classId', 'warn', { code: 'other-powder', better: suits.slice(0, 2) })
}

function checkWater({ waterTemperature: t }: Plan, { add }: ProblemList): void {
  if (!(t > 0 && t < 90)) add('waterTemperature', 'refuse', { code: 'not-liquid', celsius: t })
  else if (t > 40) add('waterTemperature', 'warn', { code: 'hot-water' })
}

/** Most of an addition that is read as one, as a share of the powder. */
const MOST_ADDED = 2

function checkAdditions({ additions }: Plan, { add }: ProblemList): void {
  const sensible = (share: number) => share >= 0 && share <= MOST_ADDED
  for (const { share } of additions) if (!sensible(share)) add('additions', 'refuse', { code: 'addition-share' })
  for (const { id, share } of additions)
    if (share > additionKind(id).harmful + 1e-9 && share <= MOST_ADDED)
      add('additions', 'warn', { code: 'harmful-addition', addition: id })
}

/** Where a plan leaves what the model was checked for: it is still worked out, and said. */
function checkModelled(plan: Plan, { add }: ProblemList): void {
  if (plan.waterTemperature < 3 || plan.roomTemperature < 3) add('waterTemperature', 'warn', { code: 'nearly-frozen' })
  else if (plan.roomTemperature > 40) add('waterTemperature', 'warn', { code: 'hot-room' })
  const turns = turnsOf(plan.stir)
  if (turns > 400) add('stir', 'warn', { code: 'stirred-much' })
  else if (turns < 20) add('stir', 'warn', { code: 'hardly-stirred' })
}

/** Below freezing nothing sets, and what froze before it was hard is spoilt (from memory). */
function checkWeather(plan: Plan, { add }: ProblemList): void {
  const { sets, roomTemperature, groundTemperature = roomTemperature } = plan
  const frozen = roomTemperature <= 0 || (sets?.place === 'ground' && groundTemperature <= 0)
  if (frozen) add('sets', 'warn', { code: 'frost-before-set' })
  if (sets?.sky === 'rain' && settingPlace(sets.place).open) add('sets', 'warn', { code: 'set-in-rain' })
}

/** What is to be said of the mix itself; a `refuse` means that nothing below it can be worked out. */
export function checkMix(plan: Plan, ratio: Estimate<WaterRatio>, list: ProblemList): void {
  checkRatio(plan, ratio.value, list)
  checkChoices(plan, list)
  checkWater(plan, list)
  checkAdditions(plan, list)
  if (plan.stir.minutes > 15) list.add('stir', 'warn', { code: 'stirred-very-long' })
  checkModelled(plan, list)
  checkWeather(plan, list)
}
