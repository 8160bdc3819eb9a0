import { foamOf } from '../../gypsum/additions'
import { solveMix, type Mix } from '../../gypsum/mix'
import type { Scoop } from '../../gypsum/schools'
import { stirredAir } from '../../gypsum/stirring'
import { powderClass } from '../../gypsum/powders'
import { safeHeight, vesselHeight, vesselVolume } from '../../mould/gauge/vessel'
import type { CubicMetres, Metres, WaterRatio } from '../../units/quantity'
import { coatVolumes, pouredBack, type CoatOf } from './coats'
import { stepTimes } from './pace'
import type { Batch, BatchFill, MouldFacts, Plan, PlanWorld } from '../types'

/** The casts that a plan asks for, and what mixing them takes. */

export const MOST_CASTS = 400
/** Largest bag of mix that one person kneads through (engineering guess). */
const BAG_CAPACITY: CubicMetres = 2e-3

/** Every cast asked for, mould by mould in the order of the plan; moulds that are not there are left out. */
export function listCasts(plan: Plan, world: PlanWorld): MouldFacts[] {
  const byId = new Map(world.moulds.map(m => [m.id, m]))
  return plan.fills.flatMap(f =>
    Array.from({ length: Math.min(f.count, MOST_CASTS) }, () => byId.get(f.mould)).filter(m => m !== undefined),
  )
}

/** What one bucket and one pair of hands can take: `safe` is the height not to pass, m. */
export function mixingRoom(
  plan: Plan,
  { bucket }: PlanWorld,
): { readonly capacity: CubicMetres, readonly safe: Metres } {
  const safe = bucket ? safeHeight(bucket.vessel) : 0
  if (plan.school === 'bag' || !bucket) return { capacity: BAG_CAPACITY, safe }
  return { capacity: vesselVolume(bucket.vessel, safe), safe }
}

/** How the mix of a plan is made, whatever its amount. */
export function recipeOf(plan: Plan, ratio: WaterRatio): Parameters<typeof solveMix>[0] {
  const powder = powderClass(plan.classId)
  return {
    powder,
    ratio,
    waterTemperature: plan.waterTemperature,
    additions: plan.additions,
    air: stirredAir(plan.stir.tool, powder.handAir) + foamOf(plan.additions),
  }
}

/** Volume of each coat over all these casts; none where they are poured at once. */
export function coatTotals(plan: Plan, casts: readonly MouldFacts[]): readonly CubicMetres[] {
  const { coats } = plan
  if (!coats) return []
  const each = casts.map(m => coatVolumes(coats, m))
  return (each[0] ?? []).map((_, k) => each.reduce((sum, volumes) => sum + volumes[k]!, 0))
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

/** Parts of a scoop that people judge; what would be over by a coarser one that makes a finer one worth it. */
const SCOOP_PARTS = [0.5, 0.25, 0.125] as const, WORTH_FINER = 0.05, SHORT = 0.02
/** Scoops to count out for a batch: never too few, and as coarse as leaves little over. The bucket holds `most`. */
function scoopsOf(mix: Mix, scoop: Scoop, most: CubicMetres): { readonly water: number, readonly powder: number } {
  const needed = mix.waterVolume / scoop.volume, room = needed * most / mix.slurry
  // Two and a half eighths of powder are more than an eye tells.
  const parts = SCOOP_PARTS.filter(part => Number.isInteger(8 * part * scoop.perWater))
  const ways = parts.map(part => Math.max(part, Math.ceil(needed * (1 - SHORT) / part - 1e-9) * part))
  const finest = parts.at(-1) ?? 0.5
  const water = ways.find(w => w <= needed * (1 + WORTH_FINER)) ?? ways.at(-1) ?? needed
  const held = water <= room * (1 + 1e-9) ? water : Math.max(finest, Math.floor(room / finest + 1e-9) * finest)
  return { water: held, powder: held * scoop.perWater }
}

/** What every batch of a plan has in common. */
export interface Batching {
  readonly plan: Plan
  readonly world: PlanWorld
  readonly ratio: WaterRatio
}

/**
 * What is over and above the moulds goes to the batches by their volume, or where one would run over, by the room each
 * has left.
 * @param volumes of the batches without it, m3; `capacity` of each
 * @returns the share of each, and what no batch has room for
 */
export function sharesOf(
  volumes: readonly CubicMetres[], capacity: CubicMetres, spare: CubicMetres,
): { readonly shares: readonly CubicMetres[], readonly beyond: CubicMetres } {
  const whole = volumes.reduce((a, b) => a + b, 0), even = volumes.map(v => spare * v / Math.max(1e-12, whole))
  if (volumes.every((v, i) => v + even[i]! <= capacity)) return { shares: even, beyond: 0 }
  const room = volumes.map(v => Math.max(0, capacity - v)), all = room.reduce((a, b) => a + b, 0)
  return { shares: room.map(r => all > 0 ? r * Math.min(1, spare / all) : 0), beyond: Math.max(0, spare - all) }
}

/**
 * Mixes one batch.
 * @param share of what is over and above the moulds
 * @param seen copies of each mould in the batches before; counted on.
 */
export function batchOf(
  { plan, world, ratio }: Batching,
  members: readonly MouldFacts[],
  castVolume: CubicMetres,
  share: CubicMetres,
  seen: Map<string, number>,
  coat?: CoatOf,
): Batch {
  const { capacity, safe } = mixingRoom(plan, world)
  const back = coat ? pouredBack(plan, members)[coat.number - 1] : undefined
  const amount = Math.min(capacity, (castVolume + (back ?? 0) + share) * (1 + plan.losses))
  const recipe = recipeOf(plan, ratio)
  const wanted = solveMix(recipe, { what: 'slurry', amount })
  const scoops = plan.school === 'scoops' ? scoopsOf(wanted, plan.scoop, capacity) : undefined
  const counted = scoops && scoops.water * plan.scoop.volume * wanted.water / wanted.waterVolume
  const mix = counted ? solveMix(recipe, { what: 'water', amount: counted }) : wanted
  const vessel = plan.school === 'bag' ? undefined : world.bucket?.vessel
  return {
    fills: gather(members, coat ? new Map<string, number>() : seen),
    castVolume,
    ...back && { back },
    mix,
    coat,
    levels: vessel && {
      ...plan.school !== 'powder-first' && { water: vesselHeight(vessel, mix.waterVolume) },
      final: vesselHeight(vessel, mix.slurry), safe,
    },
    scoops,
    steps: stepTimes(plan, mix, members.length, world.pace),
  }
}
