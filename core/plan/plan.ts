import { castBody } from '../drying/expected'
import { whyNotHere } from '../drying/here'
import { endUse } from '../gypsum/end-use'
import { powderClass } from '../gypsum/powders'
import { jugSd, leastPowder, scaleSd, USUAL_SCALE } from '../gypsum/measuring'
import { asMeasured, ratioOf, weighsBoth } from '../gypsum/schools'
import { solveMix } from '../gypsum/mix'
import { pourableUntil } from '../setting/hydration'
import { adiabaticRise, settingMix, settingProblem } from '../setting/setting-mix'
import { centreCourse, centreMoments, centreOf, type MomentsInput } from '../setting/moments'
import type { CubicMetres, Kilograms, Seconds, WaterRatio } from '../units/quantity'
import { splitIntoBatches } from './batches/batches'
import { chooseFullest } from './batches/choose'
import { batchOf, coatTotals, listCasts, mixingRoom, MOST_CASTS, recipeOf, sharesOf, type Batching } from './batches/casts'
import { castSection, castSize, castVolume, coatProblems, MOST_COATS, pouredBack } from './batches/coats'
import { customaryPourBy } from './customs'
import { largestOf, momentsInput } from './moments-input'
import { plannedStanding } from './standing'
import { pouringBy, stirringTime, stirStart } from './batches/pace'
import { checkMix, problemList, type ProblemList } from './problems'
import type { Batch, MouldFacts, Plan, PlanResult, PlanWorld } from './types'

/**
 * From a plan to everything that follows from it. Reads as its steps: check, choose the casts, batch them, look ahead.
 */

/** How much later than its earliest moment a mould is usually safe to open: the 90 % end of most forecasts (guess). */
const OPENING_DOUBT = 1.6
/** Above this the core of a cast burns who touches it long enough, degC (common practice). */
const HOT = 60
/** So much over, of what a batch needs, is worth a smaller scoop (guess). */
const SCOOP_OVER = 0.12

const sum = (numbers: readonly number[]) => numbers.reduce((a, b) => a + b, 0)

function checkAsked(plan: Plan, world: PlanWorld, casts: readonly MouldFacts[], list: ProblemList): void {
  const asked = sum(plan.fills.map(f => f.count))
  if (asked > MOST_CASTS) list.add('fills', 'refuse', { code: 'too-many-casts', asked, most: MOST_CASTS })
  if (casts.length === 0) list.add('fills', 'refuse', { code: 'no-mould' })
  if (plan.school !== 'bag' && !world.bucket) list.add('bucket', 'refuse', { code: 'no-bucket' })
  for (const { severity, ...problem } of plan.coats ? coatProblems(plan.coats) : [])
    list.add('coats', severity, problem)
  if ((plan.coats?.shares.length ?? 0) > MOST_COATS)
    list.add('coats', 'refuse', { code: 'too-many-coats', most: MOST_COATS })
}

/** The casts that can be made of what there is: all of them, or those that use most of the known powder or water. */
function castsWithinKnown(
  { plan, ratio }: Pick<Batching, 'plan' | 'ratio'>,
  casts: readonly MouldFacts[],
  list: ProblemList,
): { readonly casts: readonly MouldFacts[], readonly spare: CubicMetres } {
  const { what, amount } = plan.known
  if (what === 'moulds') return { casts, spare: 0 }
  if (!(amount > 0 && amount < Infinity)) {
    list.add('known', 'refuse', { code: what === 'powder' ? 'no-powder-said' : 'no-water-said' })
    return { casts, spare: 0 }
  }
  const castable = solveMix(recipeOf(plan, ratio), { what, amount }).slurry / (1 + plan.losses)
  const volumes = casts.map(m => castVolume(plan, m)), chosen = chooseFullest(volumes, castable)
  if (chosen.length === 0) {
    const least = volumes.indexOf(Math.min(...volumes)), takes = volumes[least]!
    list.add('known', 'refuse', { code: 'too-little', makes: castable, mould: casts[least]!.name, takes })
  }
  return { casts: chosen.map(i => casts[i]!), spare: castable - sum(chosen.map(i => volumes[i]!)) }
}

/** Whether the largest thing that has to be mixed at once goes into the bucket. */
function checkBucket(plan: Plan, world: PlanWorld, casts: readonly MouldFacts[], list: ProblemList): void {
  const withLosses = 1 + plan.losses, { capacity: holds } = mixingRoom(plan, world)
  const bucket = plan.school === 'bag' ? undefined : world.bucket?.name
  const back = pouredBack(plan, casts)
  const thickestCoat = Math.max(0, ...coatTotals(plan, casts).map((v, k) => v + (back[k] ?? 0))) * withLosses
  if (plan.coats && thickestCoat > holds)
    list.add('bucket', 'refuse', { code: 'coat-over-bucket', casts: casts.length, takes: thickestCoat, bucket, holds })
  const largest = casts.reduce((a, b) => b.volume.value > a.volume.value ? b : a)
  const takes = largest.volume.value * withLosses
  if (!plan.coats && takes > holds)
    list.add(bucket === undefined ? 'school' : 'bucket', 'refuse', {
      code: 'cast-over-bucket', mould: largest.name, takes, bucket, holds,
    })
}

/** A ratio is worth no more than what it is measured with: two per cent are seen in the cast (common practice). */
const WORTH = 0.02
function checkMeasures(plan: Plan, ratio: WaterRatio, least: Kilograms, { add }: ProblemList): void {
  if (!weighsBoth(plan.school)) return
  const { scale, jug } = plan.measures ?? { scale: USUAL_SCALE }
  const weighed = 2 * scaleSd(scale, least, ratio)
  if (weighed > WORTH)
    add('ratio', 'warn', { code: 'coarse-scale', step: scale, out: weighed, least: leastPowder(scale, ratio, WORTH) })
  const read = jug ? 2 * jugSd(jug, ratio * least / 1000) : 0
  if (read > 2 * WORTH) add('ratio', 'warn', { code: 'coarse-jug', out: read })
}

/** Whether the casts dry at all where they are meant to stand. Where nobody has said, a room is taken, and it does. */
function checkDrying(
  plan: Plan, { day }: PlanWorld, mix: Batch['mix'], mould: MouldFacts, { add }: ProblemList,
): void {
  const { dryTo } = endUse(plan.endUse)
  if (!dryTo || !plan.dries) return
  const body = castBody(mix, castSize(plan, mould))
  const why = whyNotHere(body, plannedStanding(plan, day), dryTo, body.freeWater)
  if (why) add('dries', 'warn', { code: 'not-dry-here', why })
}

/**
 * How long a mix stays pourable, by when its stirring begins, s after wetting. Time to pour grows a little with a
 * longer, unstirred sifting and soak: between the shortest and the longest it is near a straight line.
 * @param whole the most that is poured at once, m3
 */
export function pourableFrom(
  { plan, world, ratio }: Batching,
  whole: CubicMetres,
  inputFrom: (stirFrom: Seconds) => MomentsInput,
): (stirFrom: Seconds) => Seconds {
  const powderPerVolume = solveMix(recipeOf(plan, ratio), { what: 'slurry', amount: 1 }).powder
  const withLosses = 1 + plan.losses
  const most = powderPerVolume * Math.min(mixingRoom(plan, world).capacity, whole * withLosses)
  const { pace = {} } = world, early = stirStart(plan, 0, pace), late = stirStart(plan, most, pace)
  const untilFrom = (from: Seconds, input = inputFrom(from)) => pourableUntil({ ...input, ratio }, centreOf(input))
  const whenEarly = untilFrom(early), whenLate = untilFrom(late)
  const flat = late - early < 1 || !Number.isFinite(whenEarly + whenLate)
  return from => flat ? whenEarly : whenEarly + (whenLate - whenEarly) * (from - early) / (late - early)
}

/** Whether one person can sift, stir and pour so much into so many moulds before it is too stiff. */
function pouringWindow(
  batching: Batching,
  whole: CubicMetres,
  inputFrom: (stirFrom: Seconds) => MomentsInput,
): (volume: CubicMetres, count: number) => boolean {
  const { plan, world: { pace = {} }, ratio } = batching, pourBy = pourableFrom(batching, whole, inputFrom)
  const powderPerVolume = solveMix(recipeOf(plan, ratio), { what: 'slurry', amount: 1 }).powder
  return (volume, count) => {
    const slurry = volume * (1 + plan.losses), from = stirStart(plan, slurry * powderPerVolume, pace)
    return from + stirringTime(plan) + pouringBy(slurry, count, pace) <= pourBy(from)
  }
}

interface Made { readonly batches: readonly Batch[], readonly tooSlow: boolean, readonly beyond: CubicMetres }
/** Coats one after the other, or as few batches as bucket, pouring window and what is over allow. */
function makeBatches(
  batching: Batching,
  casts: readonly MouldFacts[],
  spare: CubicMetres,
  timeFits: (volume: CubicMetres, count: number) => boolean,
): Made {
  const { plan, world } = batching, seen = new Map<string, number>()
  const capacity = mixingRoom(plan, world).capacity / (1 + plan.losses)
  if (plan.coats) {
    const each = coatTotals(plan, casts), back = pouredBack(plan, casts)
    const { shares, beyond } = sharesOf(each.map((v, k) => v + (back[k] ?? 0)), capacity, spare)
    return {
      batches: each.map((volume, k) =>
        batchOf(batching, casts, volume, shares[k]!, seen, { number: k + 1, of: each.length })),
      tooSlow: each.some((volume, k) => !timeFits(volume + (back[k] ?? 0), casts.length)),
      beyond,
    }
  }
  const volumes = casts.map(m => m.volume.value)
  const least = Math.max(plan.batchesAtLeast ?? 1, Math.ceil((sum(volumes) + spare) / capacity - 1e-9))
  const { groups, tooSlow } = splitIntoBatches(volumes, capacity, timeFits, least)
  const starts = groups.map((_, g) => sum(groups.slice(0, g)))
  const members = groups.map((size, g) => casts.slice(starts[g], starts[g]! + size))
  const each = members.map(m => sum(m.map(({ volume }) => volume.value)))
  const { shares, beyond } = sharesOf(each, capacity, spare)
  return { batches: members.map((m, g) => batchOf(batching, m, each[g]!, shares[g]!, seen)), tooSlow, beyond }
}

/** A mix this far off what the pack says is another mix. */
const OFF_PACK = 0.04
/** What a mix costs, and gains, against the one that is printed on the bag. */
function checkPack({ bag }: PlanWorld, input: MomentsInput, centre: Centre, { add }: ProblemList): void {
  const { ratio: printed, sets, working } = bag?.printed ?? {}, ratio = input.ratio.value
  if (input.powder.doubt && !(printed && (sets || working || bag?.rate?.batches))) add('classId', 'warn', { code: 'pack-knows' })
  if (!printed || Math.abs(ratio / printed - 1) < OFF_PACK) return
  const at = { ...input, ratio: { ...input.ratio, value: printed } }
  if (settingProblem({ ...at, ratio: printed })) return
  const pack = centreMoments(at)
  add('ratio', 'warn', {
    code: 'off-pack', printed, ratio,
    strength: centre.dryStrength / pack.dryStrength - 1,
    pourBy: centre.pourBy - pack.pourBy,
    sets: centre.glossGone / pack.glossGone - 1,
  })
}

/** Water let in by feel: what its thin end costs against what is aimed at. */
function checkThinEnd(plan: Plan, input: MomentsInput, centre: Centre, { add }: ProblemList): void {
  if (plan.school !== 'powder-first') return
  const thin = centreMoments({ ...input, ratio: { ...input.ratio, value: input.ratio.high } })
  add('school', 'warn', {
    code: 'may-end-thin', ratio: input.ratio.high,
    weaker: Math.max(0, 1 - thin.dryStrength / centre.dryStrength),
    glossGone: Math.max(0, thin.glossGone - centre.glossGone),
  })
}

/** What is over of the known powder or water that no batch has room for, and a scoop too large for so little. */
function checkAmounts(plan: Plan, { batches, beyond }: Made, { add }: ProblemList): void {
  const { mix } = batches[0]!, { what } = plan.known
  if (what !== 'moulds' && beyond > 1e-6) {
    const mass = mix[what] * beyond * (1 + plan.losses) / mix.slurry
    if (mass > 0.005 * plan.known.amount) add('known', 'warn', { code: 'not-mixed', what, mass })
  }
  if (plan.school !== 'scoops' || what !== 'moulds') return
  const over = Math.max(...batches.map(b => b.mix.slurry / ((b.castVolume + (b.back ?? 0)) * (1 + plan.losses)))) - 1
  if (over > SCOOP_OVER) add('school', 'warn', { code: 'coarse-scoop', over })
}

/** Which of the moulds asked for stay empty, by name, with how many of each. */
function emptyOf(asked: readonly MouldFacts[], casts: readonly MouldFacts[]): PlanResult['empty'] {
  const count = (of: readonly MouldFacts[], id: string) => of.filter(m => m.id === id).length
  return [...new Map(asked.map(m => [m.id, m])).values()]
    .map(({ id, name }) => ({ name, count: count(asked, id) - count(casts, id) })).filter(e => e.count > 0)
}

type Centre = ReturnType<typeof centreMoments>

/** What is worth saying of how it will set. */
function checkSetting(plan: Plan, input: MomentsInput, centre: Centre, tooSlow: boolean, { add }: ProblemList): void {
  if (tooSlow) add('fills', 'warn', { code: 'too-slow', pourBy: centre.pourBy })
  const mix = { ...input, ratio: input.ratio.value }, { start } = settingMix(mix)
  const hottest = start + adiabaticRise(mix, start)
  if (centre.warmestTemperature > HOT || (input.section > 0.05 && hottest > HOT))
    add('fills', 'warn', { code: 'hot-core', hottest })
  if (input.section < 0.004) add('fills', 'warn', { code: 'very-thin-cast' })
  if (input.section > 0.15) add('fills', 'warn', { code: 'very-thick-cast' })
  if (plan.openAfter !== undefined && plan.openAfter < centre.open)
    add('openAfter', 'warn', { code: 'opens-early', from: centre.open, to: centre.open * OPENING_DOUBT })
  if (plan.secondCoatAfter !== undefined && plan.secondCoatAfter > centre.glossGone)
    add('secondCoatAfter', 'warn', { code: 'coat-too-late', glossGone: centre.glossGone })
}

/**
 * Everything that follows from a plan: the true ratio with its range, the batches with masses, levels and step times,
 * and what stands in the way. Pure and fast (tens of moulds in a few milliseconds). Never throws on bad input: it is
 * explained in `problems`.
 * @example
 * const { problems, batches } = workOutPlan(plan, { moulds, bucket, bag })
 * if (!problems.some(p => p.severity === 'refuse')) batches[0]!.mix.powder // kg
 */
export function workOutPlan(plan: Plan, world: PlanWorld): PlanResult {
  const powder = powderClass(plan.classId)
  const aimed = ratioOf(plan.school, powder, plan.ratio, plan.waterTemperature, plan.scoop, world.bag?.bulk)
  const list = problemList(), asked = listCasts(plan, world)
  const nothing: PlanResult = {
    powder, ratio: aimed, problems: list.found, batches: [],
    total: { powder: 0, water: 0, slurry: 0 }, unfilled: 0, empty: [], spare: 0,
  }
  checkMix(plan, aimed, list)
  checkAsked(plan, world, asked, list)
  if (list.refused()) return nothing
  const { casts, spare } = castsWithinKnown({ plan, ratio: aimed.value }, asked, list)
  if (list.refused()) return casts.length > 0 ? nothing : { ...nothing, unfilled: asked.length, spare }
  checkBucket(plan, world, casts, list)
  if (list.refused()) return nothing

  const governing = casts.reduce((a, b) => castSection(plan, b) > castSection(plan, a) ? b : a)
  const inputFrom = (stirFrom: Seconds, ratio = aimed, batch?: Batch) =>
    momentsInput(plan, ratio, governing, stirFrom, world, batch)
  const why = settingProblem({ ...inputFrom(0), ratio: aimed.value })
  if (why) list.add('ratio', 'refuse', { code: 'cannot-work-out', why })
  if (list.refused()) return nothing
  const batching = { plan, world, ratio: aimed.value }, whole = sum(casts.map(m => castVolume(plan, m)))
  const made = makeBatches(batching, casts, spare, pouringWindow(batching, whole, inputFrom))
  const { batches, tooSlow } = made
  const least = Math.min(...batches.map(b => b.mix.powder))
  const ratio = asMeasured(plan.school, aimed, plan.measures, least)
  const input = inputFrom(Math.max(...batches.map(b => b.steps.soaked.value)), ratio, largestOf(batches))
  const customary = batches.map(b => customaryPourBy(plan, b))
  const slow = tooSlow && customary.some(c => c === undefined)
  const { centre, curve } = centreCourse(input)
  if (!Number.isFinite(centre.glossGone)) list.add('waterTemperature', 'refuse', { code: 'never-sets' })
  if (list.refused()) return nothing
  checkSetting(plan, input, centre, slow, list)
  checkPack(world, input, centre, list)
  checkThinEnd(plan, input, centre, list)
  checkMeasures(plan, ratio.value, least, list)
  checkAmounts(plan, made, list)
  checkDrying(plan, world, batches[0]!.mix, governing, list)
  return {
    powder, ratio, problems: list.found, batches, spare: spare - made.beyond, empty: emptyOf(asked, casts),
    setting: { mould: governing, input, centre, curve },
    unfilled: Math.min(sum(plan.fills.map(f => f.count)), MOST_CASTS) - casts.length,
    total: {
      powder: sum(batches.map(b => b.mix.powder)),
      water: sum(batches.map(b => b.mix.water)),
      slurry: sum(batches.map(b => b.mix.slurry)),
    },
  }
}
