import type { Celsius, CubicMetres, Estimate, Kilograms, Metres, Seconds, WaterRatio } from '../units/quantity'
import { Z80 } from '../units/quantity'
import {
  formatConsistency,
  formatDuration,
  formatDurationRange,
  formatPercent,
  formatTemperature,
  formatVolume,
} from '../units/format'
import { METRIC, type UnitPreferences } from '../units/units'
import { endUse, type EndUseId } from '../gypsum/end-use'
import { additionKind, type Addition } from '../gypsum/additions'
import type { MouldMaterial } from '../setting/body'
import { adiabaticRise, freshStiffness, pourableUntil, settingProblem } from '../setting/hydration'
import { stirredAir, turnsOf, type Stirring } from '../gypsum/stirring'
import { CHEMICAL_WATER, solveMix, waterDensity, type Mix } from '../gypsum/mix'
import { powderClass, powderInSentence, type PowderClass, type PowderClassId, type Span } from '../gypsum/powders'
import { ratioOf, schoolAdvice, type SchoolId, type Scoop } from '../gypsum/schools'
import type { ReadyFacts } from '../mould/readiness'
import { safeHeight, vesselHeight, vesselVolume, type Mouth, type Vessel } from '../mould/gauge/vessel'
import { splitIntoBatches } from './batches'
import type { BagStorage } from '../gypsum/bag-age'
import { castVolume, coatProblems, coatVolumes, MOST_COATS, type CoatOf, type Coats } from './coats'
import { centreMoments, type MomentsInput } from '../setting/moments'

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
  /** What it cost, in the workshop's money. */
  readonly cost?: number
}

export interface BucketFacts { readonly id: string, readonly name: string, readonly vessel: Vessel }

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
  readonly rate?: { readonly mean: number, readonly sd: number, readonly batches: number }
  /** Its cup tests: what each taught of its speed, and when. */
  readonly cups?: readonly { readonly at: number, readonly mean: number, readonly sd: number }[]
  /** The day it was opened. */
  readonly opened?: string
  readonly storage?: BagStorage
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
  readonly waterTemperature: Celsius
  readonly roomTemperature: Celsius
  readonly bucket?: string
  /** Extra mixed for what stays in the bucket, as a share of the moulds' volume. */
  readonly losses: number
  readonly soakMinutes: number
  readonly stir: Stirring
  readonly additions: readonly Addition[]
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
  readonly moulds: readonly MouldFacts[]
  readonly bucket?: BucketFacts
  readonly bag?: BagFacts
}

export type PlanField
  = | 'fills'
    | 'ratio'
    | 'school'
    | 'bucket'
    | 'classId'
    | 'waterTemperature'
    | 'groundTemperature'
    | 'known'
    | 'additions'
    | 'stir'
    | 'endUse'
    | 'openAfter'
    | 'secondCoatAfter'
    | 'coats'

export interface Problem {
  readonly field: PlanField
  readonly severity: 'refuse' | 'warn'
  readonly sentence: string
}

export interface BatchFill {
  readonly mould: MouldFacts
  readonly copies: number /** Number of the first of them within its kind, from 1. */
  readonly first: number
}

export interface Batch {
  readonly fills: readonly BatchFill[]
  readonly castVolume: CubicMetres
  readonly mix: Mix
  /** Inside heights in the bucket: water alone, after the powder, and the level not to pass. */
  readonly levels?: { readonly water: Metres, readonly final: Metres, readonly safe: Metres }
  /** Level scoops to count when the school counts scoops. */
  readonly scoops?: { readonly water: number, readonly powder: number }
  readonly steps: StepTimes
  /** Which coat of its casts this is, when they are made in coats. */
  readonly coat?: CoatOf
}

/** Batches that are alike, as one with their numbers from 1; coats stand each for itself. */
export function alikeBatches(
  batches: readonly Batch[],
): readonly { readonly batch: Batch, readonly numbers: readonly number[] }[] {
  const groups: { batch: Batch, numbers: number[] }[] = [],
    fills = (b: Batch) => b.fills.map(f => `${f.copies} ${f.mould.id}`).join()
  batches.forEach((batch, i) => {
    const same = batch.coat
      ? undefined
      : groups.find(g => Math.abs(g.batch.mix.powder / batch.mix.powder - 1) < 1e-6 && fills(g.batch) === fills(batch))
    if (same) same.numbers.push(i + 1)
    else groups.push({ batch, numbers: [i + 1] })
  })
  return groups
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
  readonly spare: CubicMetres
  /** What the thickest cast, which speaks for the plan, will do; absent while something stands in the way. */
  readonly setting?: {
    readonly mould: MouldFacts
    readonly input: MomentsInput
    readonly centre: ReturnType<typeof centreMoments>
  }
}

const MOST_CASTS = 400
/**
 * How much later than its earliest moment a mould is usually safe to open: the 90 % end of most forecasts (engineering
 * guess).
 */
const OPENING_DOUBT = 1.6
/** Largest bag of mix that one person kneads through (engineering guess). */
const BAG_CAPACITY: CubicMetres = 2e-3
// Pace of one person, engineering guesses.
const SIFT_RATE = 0.6 / 60 // kg/s
const POUR_RATE = 2e-3 / 60 // m3/s
const PER_MOULD: Seconds = 15

const PACE: Estimate['basis'] = { kind: 'engineering guess', note: 'the pace of one person with this amount' }

function sum(a: Estimate<Seconds> | undefined, duration: Seconds, sd: number): Estimate<Seconds> {
  const before = a ? (a.high - a.low) / (2 * Z80) : 0
  const value = (a?.value ?? 0) + duration
  const spread = Z80 * Math.hypot(before, duration * sd)
  return { value, low: Math.max(0, value - spread), high: value + spread, basis: PACE }
}

/**
 * How long pouring takes one person: the volume at two litres a minute and a quarter minute a mould (engineering
 * guess).
 */
export function pouringTime(volume: CubicMetres, moulds: number): Seconds {
  return volume / POUR_RATE + moulds * PER_MOULD
}

/** When stirring begins at the centre of its range: sifting at the pace of one person, then the soak. */
function stirStart(plan: Plan, powder: Kilograms): Seconds {
  return plan.school === 'bag' ? 0 : siftingTime(plan, powder) + plan.soakMinutes * 60
}

function siftingTime(plan: Plan, powder: Kilograms): Seconds {
  return plan.school === 'bag' ? 0 : plan.school === 'dumped' ? 10 : Math.max(45, powder / SIFT_RATE)
}

function stepTimes(plan: Plan, mix: Pick<Mix, 'powder' | 'slurry'>, moulds: number): StepTimes {
  const sift = siftingTime(plan, mix.powder)
  const sifted = sum(undefined, sift, 0.3)
  const soaked = sum(sifted, plan.school === 'bag' ? 0 : plan.soakMinutes * 60, 0.2)
  const stirred = sum(soaked, plan.stir.minutes * 60, 0.2)
  const pouring = pouringTime(mix.slurry, moulds)
  return { sifted, soaked, stirred, poured: sum(stirred, pouring, 0.25), pouring }
}

/**
 * What the setting model needs to know of one kind of mould in this plan.
 * @param stirFrom when stirring begins: the largest batch's, which is sifted longest.
 */
export function momentsInput(
  plan: Plan,
  ratio: Estimate<WaterRatio>,
  mould: Pick<MouldFacts, 'material' | 'wall' | 'section' | 'fragile'>,
  stirFrom: Seconds,
  bag?: BagFacts,
): MomentsInput {
  return {
    powder: powderClass(plan.classId),
    ratio,
    waterTemperature: plan.waterTemperature,
    roomTemperature: plan.roomTemperature,
    stir: plan.stir,
    stirFrom,
    section: mould.section,
    mould: mould.material,
    wall: mould.wall,
    ground: plan.groundTemperature,
    additions: plan.additions,
    bagUncertain: bag?.uncertain ?? true,
    bagRate: bag?.rate && { mean: bag.rate.mean, sd: bag.rate.sd },
    openNotBefore: endUse(plan.endUse).openNotBefore * 60,
    fragile: mould.fragile,
  }
}

/** Where a plan leaves what the model was checked for: it is still worked out, and said. */
function outsideChecked(plan: Plan, add: (field: PlanField, severity: 'warn', sentence: string) => void): void {
  const outside = 'Outside what the model was checked for'
  if (plan.waterTemperature < 3 || plan.roomTemperature < 3)
    add(
      'waterTemperature',
      'warn',
      `${outside}: nearly frozen. It sets very late or, frozen, not at all; a frozen cast is spoilt.`,
    )
  else if (plan.roomTemperature > 40) add('waterTemperature', 'warn', `${outside}: a room above 40 °C.`)
  const turns = turnsOf(plan.stir)
  if (turns > 400)
    add('stir', 'warn', `${outside}: stirred this much it sets sooner than shown here, perhaps in the bucket.`)
  else if (turns < 20) add('stir', 'warn', `${outside}: hardly stirred, it may stay lumpy and set late and unevenly.`)
}

/** Sentences about the mix itself; a `refuse` means that nothing below it can be worked out. */
export function mixProblems(plan: Plan, ratio: Estimate<WaterRatio>, prefs: UnitPreferences = METRIC): Problem[] {
  const powder = powderClass(plan.classId)
  const problems: Problem[] = []
  const add = (field: PlanField, severity: Problem['severity'], sentence: string) =>
    problems.push({ field, severity, sentence })
  const need = powder.purity * CHEMICAL_WATER
  const w = ratio.value
  const ratioField: PlanField = plan.school === 'scoops' || plan.school === 'saturation' ? 'school' : 'ratio'
  const range = `${formatConsistency(powder.ratio.low)} to ${formatConsistency(powder.ratio.high)}`
  const stiffness = freshStiffness(powder, w, plan.additions)
  if (!(w > need))
    add(
      ratioField,
      'refuse',
      `${powder.name} binds ${(need * 100).toFixed(1)} parts of water to 100 of powder; with ${
        formatConsistency(w)
      } some of it could never set. Use ${range}.`,
    )
  else if (!stiffness.flows)
    add(
      ratioField,
      'refuse',
      `At ${formatConsistency(w)} this powder jams and will not pour. Use ${range}${
        plan.additions.length ? ', or add less of what drinks water' : ''
      }.`,
    )
  else if (w < powder.ratio.low - 1e-9)
    add(ratioField, 'warn', `Thicker than usual for this powder (${range}): it traps air and leaves little time.`)
  else if (w > powder.ratio.high + 1e-9)
    add(
      ratioField,
      'warn',
      `Thinner than usual for this powder (${range}): weak, slow to dry, and water will stand on top.`,
    )
  const advice = schoolAdvice(plan.school, powder, plan.endUse)
  if (advice.fit === 'against') {
    const forbidden = plan.school === 'saturation' && (powder.family === 'dental' || powder.family === 'investment')
    add('school', forbidden ? 'refuse' : 'warn', advice.why)
  }
  if (!endUse(plan.endUse).suits.includes(plan.classId)) {
    const better = endUse(plan.endUse).suits.map(id => powderInSentence(powderClass(id))).slice(0, 2).join(' or ')
    add('classId', 'warn', `For this end use most casters take ${better}.`)
  }
  const t = plan.waterTemperature
  if (!(t > 0 && t < 90))
    add(
      'waterTemperature',
      'refuse',
      `Water at ${
        formatTemperature(t, prefs)
      } will not do: plaster needs liquid water and does not set near boiling. Use 5 to 40 °C.`,
    )
  else if (t > 40)
    add(
      'waterTemperature',
      'warn',
      'Water this hot makes lumps, and above about 40 °C plaster sets slower again, not faster.',
    )
  for (const { share } of plan.additions) {
    if (!(share >= 0 && share <= 2))
      add('additions', 'refuse', 'An addition is given as a share of the powder, between nothing and twice its weight.')
  }
  for (const { id, share } of plan.additions) {
    const kind = additionKind(id)
    if (share > kind.harmful + 1e-9 && share <= 2)
      add(
        'additions',
        'warn',
        `${kind.name} above ${formatPercent(kind.harmful)}: ${kind.harm.charAt(0).toLowerCase()}${kind.harm.slice(1)}`,
      )
  }
  if (plan.stir.minutes > 15)
    add('stir', 'warn', 'Stirring longer than a quarter of an hour: it will set in the bucket.')
  outsideChecked(plan, add)
  return problems
}

function listOfCasts(plan: Plan, world: PlanWorld): MouldFacts[] {
  const byId = new Map(world.moulds.map(m => [m.id, m]))
  return plan.fills.flatMap(f =>
    Array.from({ length: Math.min(f.count, MOST_CASTS) }, () => byId.get(f.mould)).filter(m => m !== undefined),
  )
}

function gather(casts: readonly MouldFacts[], seen: Map<string, number>): BatchFill[] {
  const fills: { mould: MouldFacts, copies: number, first: number }[] = []
  for (const mould of casts) {
    const last = fills.find(f => f.mould.id === mould.id)
    const before = seen.get(mould.id) ?? 0
    seen.set(mould.id, before + 1)
    if (last) last.copies++
    else fills.push({ mould, copies: 1, first: before + 1 })
  }
  return fills
}

/** Scoops to count out for a batch: whole half-scoops of water, never too few. */
function scoopsOf(mix: Mix, scoop: Scoop): { water: number, powder: number } {
  const water = Math.max(0.5, Math.ceil(2 * mix.waterVolume / scoop.volume - 0.05) / 2)
  return { water, powder: water * scoop.perWater }
}

/**
 * Everything that follows from a plan: the true ratio with its range, the batches with masses, levels and step times,
 * and what stands in the way.
 * Pure and fast (tens of moulds in a few milliseconds). Never throws on bad input: it explains it.
 */
export function workOutPlan(plan: Plan, world: PlanWorld, prefs: UnitPreferences = METRIC): PlanResult {
  const powder = powderClass(plan.classId)
  const ratio = ratioOf(plan.school, powder, plan.ratio, plan.waterTemperature, plan.scoop, world.bag?.bulk)
  const problems = mixProblems(plan, ratio, prefs)
  const nothing: PlanResult = {
    powder,
    ratio,
    problems,
    batches: [],
    total: { powder: 0, water: 0, slurry: 0 },
    unfilled: 0,
    spare: 0,
  }
  const add = (field: PlanField, severity: Problem['severity'], sentence: string) =>
    problems.push({ field, severity, sentence })

  let casts = listOfCasts(plan, world)
  const asked = plan.fills.reduce((n, f) => n + f.count, 0)
  if (asked > MOST_CASTS)
    add(
      'fills',
      'refuse',
      `A plan holds up to ${MOST_CASTS} casts; this one asks for ${asked}. Split it into several plans.`,
    )
  if (casts.length === 0) add('fills', 'refuse', 'Choose at least one mould to fill.')
  if (plan.school !== 'bag' && !world.bucket) add('bucket', 'refuse', 'Choose the bucket you will mix in.')
  if (plan.coats) { for (const p of coatProblems(plan.coats, prefs)) add('coats', p.severity, p.sentence) }
  if ((plan.coats?.shares.length ?? 0) > MOST_COATS)
    add('coats', 'refuse', `A piece is built in up to ${MOST_COATS} coats here.`)
  if (problems.some(p => p.severity === 'refuse')) return nothing

  const recipe = {
    powder,
    ratio: ratio.value,
    waterTemperature: plan.waterTemperature,
    additions: plan.additions,
    air: stirredAir(plan.stir.tool, powder.handAir),
  }
  const withLosses = 1 + plan.losses
  const sumOf = (numbers: readonly number[]) => numbers.reduce((a, b) => a + b, 0)
  const volumeOf = (m: MouldFacts): CubicMetres => castVolume(plan, m)
  const coatsOf = (all: readonly MouldFacts[]) =>
    plan.coats
      ? coatVolumes(plan.coats, 0).map((_, k) =>
          all.reduce((v, m) => v + coatVolumes(plan.coats!, m.volume.value)[k]!, 0),
        )
      : []
  let spare = 0
  if (plan.known.what !== 'moulds') {
    if (!(plan.known.amount > 0 && plan.known.amount < Infinity)) {
      add(
        'known',
        'refuse',
        plan.known.what === 'powder' ? 'Say how much powder is left.' : 'Say how much water is already in the bucket.',
      )
      return nothing
    }
    const castable = solveMix(recipe, { what: plan.known.what, amount: plan.known.amount }).slurry / withLosses
    let used = 0, n = 0
    while (n < casts.length && used + volumeOf(casts[n]!) <= castable) used += volumeOf(casts[n++]!)
    spare = castable - used
    if (n === 0) {
      add(
        'known',
        'refuse',
        `That makes ${formatVolume(castable, prefs)} of mix; even “${casts[0]!.name}” takes ${
          formatVolume(volumeOf(casts[0]!), prefs)
        }.`,
      )
      return { ...nothing, unfilled: casts.length, spare }
    }
    casts = casts.slice(0, n)
  }

  // What one bucket and one pair of hands can take.
  const safe = world.bucket ? safeHeight(world.bucket.vessel) : 0
  const capacity = plan.school === 'bag' ? BAG_CAPACITY : vesselVolume(world.bucket!.vessel, safe)
  const largest = casts.reduce((a, b) => b.volume.value > a.volume.value ? b : a)
  const vessel = plan.school === 'bag' ? 'one bag' : world.bucket!.name
  const thickestCoat = Math.max(0, ...coatsOf(casts)) * withLosses
  if (plan.coats && thickestCoat > capacity) {
    add(
      'bucket',
      'refuse',
      `The largest coat of ${casts.length === 1 ? 'this cast' : `these ${casts.length} casts`} takes ${
        formatVolume(thickestCoat, prefs)
      } with spare; ${vessel} holds ${
        formatVolume(capacity, prefs)
      } with room to stir. Choose a larger bucket, more coats, or fewer casts in one plan.`,
    )
    return nothing
  }
  if (!plan.coats && largest.volume.value * withLosses > capacity) {
    add(
      plan.school === 'bag' ? 'school' : 'bucket',
      'refuse',
      `“${largest.name}” takes ${formatVolume(largest.volume.value * withLosses, prefs)} with spare; ${vessel} holds ${
        formatVolume(capacity, prefs)
      } with room to stir. ${plan.school === 'bag' ? 'Mix it in a bucket.' : 'Choose a larger bucket.'}`,
    )
    return nothing
  }
  const governing = casts.reduce((a, b) => b.section > a.section ? b : a)
  const settingInput = (stirFrom: Seconds) => momentsInput(plan, ratio, governing, stirFrom, world.bag)
  const impossible = settingProblem({ ...settingInput(0), ratio: ratio.value })
  if (impossible) {
    add('ratio', 'refuse', impossible)
    return nothing
  }
  // Time to pour grows a little with a longer, unstirred sifting and soak: between the shortest and the longest it is
  // near a straight line.
  const powderPerVolume = solveMix(recipe, { what: 'slurry', amount: 1 }).powder
  const whole = sumOf(casts.map(volumeOf))
  const most = powderPerVolume * Math.min(capacity, whole * withLosses)
  const [early, late] = [stirStart(plan, 0), stirStart(plan, most)]
  const [whenEarly, whenLate] = [early, late].map(from =>
    pourableUntil({ ...settingInput(from), ratio: ratio.value }),
  ) as [Seconds, Seconds]
  const pourBy = (from: Seconds) =>
    late - early < 1 || !Number.isFinite(whenEarly + whenLate)
      ? whenEarly
      : whenEarly + (whenLate - whenEarly) * (from - early) / (late - early)
  const timeFits = (volume: CubicMetres, count: number) => {
    const slurry = volume * withLosses
    const from = stirStart(plan, slurry * powderPerVolume)
    return from + plan.stir.minutes * 60 + pouringTime(slurry, count) <= pourBy(from)
  }
  const seen = new Map<string, number>()
  const batchOf = (members: readonly MouldFacts[], castVolume: CubicMetres, coat?: CoatOf): Batch => {
    const share = plan.known.what === 'moulds' ? 0 : spare * castVolume / Math.max(1e-12, whole)
    const amount = Math.min(capacity, (castVolume + share) * withLosses)
    const mix = solveMix(recipe, { what: 'slurry', amount })
    const vessel = plan.school === 'bag' ? undefined : world.bucket!.vessel
    return {
      fills: gather(members, coat ? new Map<string, number>() : seen), castVolume, mix, coat,
      levels: vessel && { water: vesselHeight(vessel, mix.waterVolume), final: vesselHeight(vessel, mix.slurry), safe },
      scoops: plan.school === 'scoops' ? scoopsOf(mix, plan.scoop) : undefined,
      steps: stepTimes(plan, mix, members.length),
    }
  }
  let tooSlow = false
  let batches: Batch[]
  if (plan.coats) {
    const each = coatsOf(casts)
    batches = each.map((volume, k) => batchOf(casts, volume, { number: k + 1, of: each.length }))
    tooSlow = each.some(volume => !timeFits(volume, casts.length))
  }
  else {
    const split = splitIntoBatches(casts.map(m => m.volume.value), capacity / withLosses, timeFits)
    tooSlow = split.tooSlow
    let start = 0
    batches = split.groups.map((size) => {
      const members = casts.slice(start, start + size)
      start += size
      return batchOf(members, sumOf(members.map(m => m.volume.value)))
    })
  }
  const input = settingInput(Math.max(...batches.map(b => b.steps.soaked.value)))
  const centre = centreMoments(input)
  if (!Number.isFinite(centre.glossGone)) {
    add('waterTemperature', 'refuse', 'This mix would not set within twelve hours at these temperatures. Work warmer.')
    return nothing
  }
  if (tooSlow)
    add(
      'fills',
      'warn',
      `It thickens after about ${
        formatDuration(centre.pourBy, 'minute')
      }, sooner than one person can sift, soak, stir and pour this. Work in two, use colder water, or stir less.`,
    )
  const rise = adiabaticRise({ powder, ratio: ratio.value }, (plan.waterTemperature + plan.roomTemperature) / 2)
  const hottest = (plan.waterTemperature + plan.roomTemperature) / 2 + rise
  if (centre.warmestTemperature > 60 || (governing.section > 0.05 && hottest > 60)) {
    add(
      'fills',
      'warn',
      `The core will pass 60 °C (up to about ${
        formatTemperature(Math.round(hottest / 5) * 5, prefs)
      } in a very thick piece). Keep skin away from it and let it cool before you open.`,
    )
  }
  if (governing.section < 0.004 || governing.section > 0.15)
    add(
      'fills',
      'warn',
      `Outside what the model was checked for: a cast ${
        governing.section < 0.004
          ? 'thinner than 4 mm dries before it has set; keep it covered'
          : 'thicker than 150 mm keeps its heat for most of a day'
      }.`,
    )
  if (plan.openAfter !== undefined && plan.openAfter < centre.open) {
    add(
      'openAfter',
      'warn',
      `Too early for this mould: it is hardly strong enough to open before ${
        formatDurationRange(centre.open, centre.open * OPENING_DOUBT)
      }.`,
    )
  }
  if (plan.secondCoatAfter !== undefined && plan.secondCoatAfter > centre.glossGone) {
    add(
      'secondCoatAfter',
      'warn',
      `Too late to bond by itself: the gloss goes after about ${
        formatDuration(centre.glossGone, 'minute')
      }. Pour it before that, or roughen, wet and coat the face thinly first.`,
    )
  }
  return {
    powder,
    ratio,
    problems,
    batches,
    spare,
    setting: { mould: governing, input, centre },
    unfilled: Math.min(asked, MOST_CASTS) - casts.length,
    total: batches.reduce(
      (t, b) => ({ powder: t.powder + b.mix.powder, water: t.water + b.mix.water, slurry: t.slurry + b.mix.slurry }),
      nothing.total,
    ),
  }
}

/** Water for the powder that was really put in, or the reverse: what to add so that the ratio is right again. */
export function ratioRestored(
  target: WaterRatio,
  water: Kilograms,
  powder: Kilograms,
): { readonly add: 'water' | 'powder' | 'nothing', readonly mass: Kilograms } {
  const actual = water / powder
  if (!(powder > 0) || Math.abs(actual / target - 1) < 0.005) return { add: 'nothing', mass: 0 }
  return actual < target
    ? { add: 'water', mass: target * powder - water }
    : { add: 'powder', mass: water / target - powder }
}

/** Volume of a mass of water at its temperature, for the jug. */
export function jugOf(water: Kilograms, t: Celsius): CubicMetres {
  return water / waterDensity(t)
}
