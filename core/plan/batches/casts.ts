import { foamOf } from '../../gypsum/additions'
import { solveMix, type Mix } from '../../gypsum/mix'
import type { Scoop } from '../../gypsum/schools'
import { stirredAir } from '../../gypsum/stirring'
import { powderClass } from '../../gypsum/powders'
import { safeHeight, vesselHeight, vesselVolume } from '../../mould/gauge/vessel'
import type { CubicMetres, Metres, WaterRatio } from '../../units/quantity'
import { castVolume, coatVolumes, pouredBack, type CoatOf } from './coats'
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

/** How many casts a volume reaches for, taken in order, and what is over. */
export function reach(
  plan: Plan,
  casts: readonly MouldFacts[],
  castable: CubicMetres,
): { readonly count: number, readonly spare: CubicMetres } {
  let used = 0, count = 0
  while (count < casts.length && used + castVolume(plan, casts[count]!) <= castable)
    used += castVolume(plan, casts[count++]!)
  return { count, spare: castable - used }
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

/** What every batch of a plan has in common. */
export interface Batching {
  readonly plan: Plan
  readonly world: PlanWorld
  readonly ratio: WaterRatio
  /** Mix that is over and goes to the batches by their volume, and the volume of all casts. */
  readonly spare: CubicMetres
  readonly whole: CubicMetres
}

/**
 * Mixes one batch.
 * @param seen copies of each mould in the batches before; counted on.
 */
export function batchOf(
  { plan, world, ratio, spare, whole }: Batching,
  members: readonly MouldFacts[],
  castVolume: CubicMetres,
  seen: Map<string, number>,
  coat?: CoatOf,
): Batch {
  const { capacity, safe } = mixingRoom(plan, world)
  const share = plan.known.what === 'moulds' ? 0 : spare * castVolume / Math.max(1e-12, whole)
  const back = coat ? pouredBack(plan, members)[coat.number - 1] : undefined
  const amount = Math.min(capacity, (castVolume + (back ?? 0) + share) * (1 + plan.losses))
  const mix = solveMix(recipeOf(plan, ratio), { what: 'slurry', amount })
  const vessel = plan.school === 'bag' ? undefined : world.bucket?.vessel
  return {
    fills: gather(members, coat ? new Map<string, number>() : seen),
    castVolume,
    ...back && { back },
    mix,
    coat,
    levels: vessel && { water: vesselHeight(vessel, mix.waterVolume), final: vesselHeight(vessel, mix.slurry), safe },
    scoops: plan.school === 'scoops' ? scoopsOf(mix, plan.scoop) : undefined,
    steps: stepTimes(plan, mix, members.length, world.pace),
  }
}
