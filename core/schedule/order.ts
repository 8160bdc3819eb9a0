import { solveMix } from '../gypsum/mix'
import { forecast, centreMoments, type MomentsInput } from '../setting/moments'
import { mixingRoom, recipeOf } from '../plan/batches/casts'
import { castVolume } from '../plan/batches/coats'
import { stepTimes } from '../plan/batches/pace'
import { momentsInput } from '../plan/moments-input'
import { pourableFrom, workOutPlan } from '../plan/plan'
import type { Problem } from '../plan/problems'
import type { MouldFacts, Plan, PlanWorld } from '../plan/types'
import { Z80, type Kilograms, type Seconds } from '../units/quantity'
import { fitsBucket, sumOf, type Counts, type Goal, type MixTimes, type Round, type RoundShape } from './round'
import type { Shift } from './windows'

/**
 * From what is ordered to a round: every duration is the product's own, sifting and pouring by amount and count at the
 * pace of this workshop, opening and pot life by its forecast.
 */

/** Seconds of one unit of a round: what is shorter is rounded, durations up and deadlines down. */
export const UNIT: Seconds = 20
/** Cleaning a bucket (engineering guess), and filling and fetching what is weighed (common practice, no source). */
export const CLEAN: Seconds = 120
const WEIGH = { least: 60, perKilogram: 15 } as const
/** The longest soak that does no harm on the way, as a multiple of the planned one, and the least more, s (guess). */
const SOAK_LONGER = 2, SOAK_MORE: Seconds = 60

export interface OrderLine {
  readonly mould: string
  readonly pieces: number
  /** Moulds there are of it. */
  readonly copies: number
}

/** What is wanted, and with what. Times of day have become units from the zero already. */
export interface Order {
  /** Powder, ratio, bucket and way of working; what it fills is in the lines. */
  readonly recipe: Plan
  readonly lines: readonly OrderLine[]
  /** Each person's hours, in units from the zero. */
  readonly persons: readonly (readonly Shift[])[]
  /** When all is to be out, in units from the zero; by then as many as possible. */
  readonly due?: number
  readonly horizon: number
  readonly buckets: number
  readonly tables: number
  /** Filled moulds that can stand at once. */
  readonly shelf?: number
  readonly goal: Goal
  /** Opening one mould and making it ready again; finishing one back. */
  readonly opening: Seconds
  readonly finishing: Seconds
}

/** A round made of an order, and what one of each shape takes. */
export interface Ordered {
  readonly round: Round
  readonly powderEach: readonly Kilograms[]
  /** From when each shape can be opened, after powder met water. */
  readonly opensFrom: readonly Seconds[]
  /** Standard deviation of the logarithm of that time; the round is planned with its 90 % end. */
  readonly setSd: number
}

/** Why an order cannot be planned. */
export type OrderProblem
  = | { readonly code: 'no-lines' | 'no-hours' }
    | { readonly code: 'mould-gone', readonly mould: string }
    | { readonly code: 'pours-too-late', readonly mould: string }
    | { readonly code: 'plan', readonly problem: Problem }

const up = (seconds: Seconds) => Math.ceil(seconds / UNIT - 1e-9)
const down = (seconds: Seconds) => Math.floor(seconds / UNIT + 1e-9)

/**
 * Works an order out. Forecasts the thickest shape with its ranges and the others by their centres, as much wider.
 * @returns a round, or what stands in the way
 */
export function roundOf(order: Order, world: PlanWorld): Ordered | readonly OrderProblem[] {
  const { recipe, lines } = order, moulds = lines.map(l => world.moulds.find(m => m.id === l.mould))
  const gone = lines.filter((_, i) => !moulds[i])
  if (lines.length === 0) return [{ code: 'no-lines' }]
  if (gone.length > 0) return gone.map(({ mould }) => ({ code: 'mould-gone', mould }))
  if (order.persons.every(p => p.length === 0)) return [{ code: 'no-hours' }]
  const fills = lines.map(({ mould }) => ({ mould, count: 1 }))
  const plan: Plan = { ...recipe, fills, known: { what: 'moulds', amount: 0 } }
  const { problems, setting, ratio } = workOutPlan(plan, world)
  const refused = problems.filter(p => p.severity === 'refuse')
  if (refused.length > 0 || !setting) return refused.map(problem => ({ code: 'plan', problem }))
  const there = moulds as MouldFacts[], { opensFrom, setSd } = openings(plan, world, there, setting.input)
  const each = there.map(m => castVolume(plan, m) * (1 + plan.losses))
  const powderPerVolume = solveMix(recipeOf(plan, ratio.value), { what: 'slurry', amount: 1 }).powder
  const round: Round = {
    ...order, bucketVolume: mixingRoom(plan, world).capacity, setFrom: 'wet',
    shapes: lines.map((line, i): RoundShape => ({
      id: line.mould, pieces: line.pieces, copies: line.copies, volume: each[i]!, due: order.due,
      fill: Math.max(1, up(fillOne(plan, each[i]!, line.copies, powderPerVolume, world))),
      finish: up(order.finishing),
      set: up(opensFrom[i]!), open: Math.max(1, up(order.opening)), shelf: 1, powder: each[i]! * powderPerVolume,
    })),
    mixing: mixTimes({
      plan, world, each, powderPerVolume, thickest: setting.input, glossGone: setting.centre.glossGone,
    }),
  }
  const late = lines.filter((l, s) => l.pieces > 0 && !fitsBucket(round, lines.map((_, i) => i === s ? 1 : 0)))
  if (late.length > 0) return late.map(({ mould }) => ({ code: 'pours-too-late', mould }))
  return { round, powderEach: each.map(v => v * powderPerVolume), opensFrom, setSd }
}

/** One mould's share of filling as many as there are, or as a bucket holds: a larger amount runs in a larger stream. */
function fillOne(plan: Plan, volume: number, copies: number, powderPerVolume: number, world: PlanWorld): Seconds {
  const n = Math.max(1, Math.min(copies, Math.floor(mixingRoom(plan, world).capacity / volume)))
  return stepTimes(plan, { powder: n * volume * powderPerVolume, slurry: n * volume }, n, world.pace).pouring / n
}

/** From when each can be opened, s after wetting: the cautious end of the forecast of the thickest, and alike. */
function openings(
  plan: Plan, world: PlanWorld, moulds: readonly MouldFacts[], thickest: MomentsInput,
): Pick<Ordered, 'opensFrom' | 'setSd'> {
  const { open } = forecast(thickest).moments, wider = open.from / centreMoments(thickest).open
  const opensFrom = moulds.map((mould) => {
    const own = centreMoments(momentsInput(plan, thickest.ratio, mould, thickest.stirFrom ?? 0, world))
    return Math.max(thickest.openNotBefore, own.open * wider)
  })
  return { opensFrom, setSd: Math.log(Math.max(1.01, wider)) / Z80 }
}

interface Mixed {
  readonly plan: Plan
  readonly world: PlanWorld
  /** Mix that one of each shape takes, m3. */
  readonly each: readonly number[]
  readonly powderPerVolume: number
  readonly thickest: MomentsInput
  readonly glossGone: Seconds
}

/** What a bucket for so many of each takes, in units. */
function mixTimes({ plan, world, each, powderPerVolume, thickest, glossGone }: Mixed): (counts: Counts) => MixTimes {
  const ratio = thickest.ratio.value, whole = mixingRoom(plan, world).capacity / (1 + plan.losses)
  const pourable = pourableFrom({ plan, world, ratio }, whole, stirFrom => ({ ...thickest, stirFrom }))
  return (counts) => {
    const slurry = sumOf(counts.map((n, s) => n * each[s]!)), powder = slurry * powderPerVolume
    const { sifted, soaked, stirred } = stepTimes(plan, { powder, slurry }, sumOf(counts), world.pace)
    const soak = soaked.value - sifted.value
    return {
      weigh: up(Math.max(WEIGH.least, WEIGH.perKilogram * powder)),
      sift: up(sifted.value),
      soak: up(soak),
      soakMax: soak > 0 ? Math.max(up(soak), down(Math.max(SOAK_LONGER * soak, soak + SOAK_MORE))) : 0,
      stir: up(stirred.value - soaked.value),
      clean: up(CLEAN),
      pourBy: down(pourable(soaked.value)),
      finishBy: down(glossGone),
    }
  }
}
